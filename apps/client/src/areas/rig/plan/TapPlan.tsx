/**
 * A plan to tap lamps on: drag to move about, two fingers or the wheel to zoom. It shows no light: that would be what the
 * plan thinks of the slots, and the person is asked what the ship shows.
 */
import { useMemo, useRef } from 'react';
import type { Spot } from '@taxiarch/core/rig/stage';
import { panBy, zoomAt } from './camera';
import { PlanPicture } from './PlanPicture';
import { usePlanView } from './usePlanView';
import { usePointers } from './usePointers';

interface Props {
  /** Only these lamps */
  readonly lampIds: ReadonlySet<string>;
  /** Those that are marked */
  readonly chosen: ReadonlySet<string>;
  /** Those that step back */
  readonly done: ReadonlySet<string>;
  readonly label: string;
  readonly onTap: (lampId: string) => void;
}

export function TapPlan({ lampIds, chosen, done, label, onTap }: Props) {
  const { holder, size, camera, moving, keyOf, marks, regions, markAt, look } = usePlanView('top', '', lampIds);
  const drawn = useMemo(() => marks.map((mark) => ({ ...mark, keys: [], locked: done.has(mark.id) })), [marks, done]);
  const panned = useRef<Spot | undefined>(undefined);
  usePointers(holder, {
    onTap: (at) => {
      const mark = markAt(at);
      if (mark) onTap(mark.id);
    },
    onDragStart: () => undefined,
    onDrag: (from, to) => {
      const before = panned.current ?? from;
      look(panBy(camera.current, [to[0] - before[0], to[1] - before[1]]));
      panned.current = to;
    },
    onDragEnd: () => (panned.current = undefined),
    onPan: (by) => look(panBy(camera.current, by)),
    onZoom: (at, factor) => look(zoomAt(camera.current, size, at, factor)),
  });
  return (
    <div
      ref={holder}
      style={{ flex: 1, minHeight: 160, position: 'relative', touchAction: 'none', overflow: 'hidden' }}
    >
      <PlanPicture
        size={size}
        marks={drawn}
        regions={regions}
        chosen={chosen}
        keyOf={keyOf}
        moving={moving}
        label={label}
      />
    </div>
  );
}
