/**
 * The slot field: 512 slots alive on a canvas, with a layer of buttons over it for fingers, keys
 * and reading aloud. The canvas follows the feed by itself and never waits for React.
 */
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { SLOTS } from '@taxiarch/core/base/address';
import type { UniverseFrame } from '@taxiarch/core/whole/contract';
import { attributeLabel } from '@taxiarch/core/rig/fixture';
import { NOBODY } from '@taxiarch/core/signal/merge';
import { claimOf, lastChannel, type Span } from '@taxiarch/core/rig/patch';
import type { Pennant } from '@taxiarch/core/show/records';
import { feed } from '@/data/feed';
import { useColour } from '@/ui';
import { drawSlots } from './drawSlots';
import { GAP_WIDTH, layoutBands, layoutPlain } from './slotLayout';
import type { Unit } from './units';

interface Props {
  /** Key of the universe on the wire */
  universeKey: number;
  spans: readonly Span[];
  pennants: ReadonlyMap<number, Pennant>;
  unit: Unit;
  plain: boolean;
  /** Slots that drive something by the input map, from 0 */
  inUse?: ReadonlySet<number>;
  /** Slot chosen, from 0 */
  chosen: number | undefined;
  onChoose: (slot: number) => void;
}

/** Room at the field's sides. */
const MARGIN = 16;
/** Buttons are made for this much more than is seen, so that scrolling finds them there. */
const BEYOND = 200;
const NONE: ReadonlySet<number> = new Set();

/** What a slot is, for reading aloud: “Slot 47, lamp 101 Port spot 1, Pan, fine”. */
function nameSlot(slot: number, spans: readonly Span[]): string {
  const span = spans.find((one) => one.channel <= slot + 1 && slot + 1 <= lastChannel(one));
  if (!span) return `Slot ${slot + 1}, unpatched`;
  const { lamp, channel, byte } = claimOf(span, slot + 1);
  const attribute = channel ? attributeLabel(channel.attribute) : 'unused';
  return `Slot ${slot + 1}, lamp ${lamp.number} ${lamp.name}, ${attribute}${byte > 0 ? ', fine' : ''}`;
}

export function SlotField({ universeKey, spans, pennants, unit, plain, inUse = NONE, chosen, onChoose }: Props) {
  const colour = useColour();
  const scroller = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [top, setTop] = useState(0);
  const [opened, setOpened] = useState<ReadonlySet<number>>(new Set());
  const levels = useRef<Pick<UniverseFrame, 'values' | 'owners'>>({
    values: new Uint8Array(SLOTS),
    owners: new Uint8Array(SLOTS).fill(NOBODY),
  });
  const draw = useRef<() => void>(() => undefined);

  const layout = useMemo(() => {
    const width = Math.max(0, size.width - 2 * MARGIN);
    return plain ? layoutPlain(width) : layoutBands(spans, width, opened);
  }, [plain, spans, size.width, opened]);

  useLayoutEffect(() => {
    const element = scroller.current!;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, []);

  useLayoutEffect(() => {
    const element = canvas.current!;
    const ratio = Math.min(2, devicePixelRatio || 1);
    const width = Math.max(0, size.width - 2 * MARGIN);
    element.width = width * ratio;
    element.height = size.height * ratio;
    const ctx = element.getContext('2d')!;
    draw.current = () =>
      drawSlots(
        ctx,
        { layout, ...levels.current, pennants, unit, inUse, chosen, colour },
        scroller.current?.scrollTop ?? 0,
        width,
        size.height,
        ratio,
      );
    draw.current();
  });

  useEffect(() => {
    let frame = 0;
    const soon = () => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        draw.current();
      });
    };
    const element = scroller.current!;
    const onScroll = () => {
      setTop(Math.floor(element.scrollTop / 100) * 100);
      soon();
    };
    element.addEventListener('scroll', onScroll, { passive: true });
    // The first levels of an animation frame are drawn at once, so that they are seen in it; further ones wait for the next.
    let drawn = false;
    const stop = feed.watch(universeKey, (next) => {
      levels.current = next;
      if (drawn) return soon();
      drawn = true;
      draw.current();
      requestAnimationFrame(() => (drawn = false));
    });
    void document.fonts.ready.then(soon);
    return () => {
      stop();
      element.removeEventListener('scroll', onScroll);
      cancelAnimationFrame(frame);
    };
  }, [universeKey]);

  // A slot chosen elsewhere (jump, arrow keys) is brought into view.
  useEffect(() => {
    if (chosen === undefined) return;
    const cell = layout.cells.find((one) => one.slot === chosen);
    const element = scroller.current;
    if (!cell) {
      const gap = layout.gaps.find((one) => one.from <= chosen && chosen <= one.to);
      if (gap) setOpened((before) => new Set(before).add(gap.from));
    } else if (
      element &&
      (cell.y < element.scrollTop || cell.y + layout.cellHeight > element.scrollTop + element.clientHeight)
    )
      element.scrollTop = cell.y - element.clientHeight / 3;
  }, [chosen, layout]);

  const step = (event: KeyboardEvent) => {
    const columns = plain ? 32 : 1;
    const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns, ArrowUp: -columns }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = Math.min(SLOTS - 1, Math.max(0, (chosen ?? -1) + by));
    onChoose(next);
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>(`[data-slot="${next}"]`)?.focus({ preventScroll: true }),
    );
  };

  const within = (y: number) => y > top - BEYOND - layout.cellHeight && y < top + size.height + BEYOND;
  const first = layout.cells[0]?.slot;
  return (
    <div ref={scroller} style={{ flex: 1, minHeight: 0, overflowY: 'auto', position: 'relative' }}>
      <div
        role="group"
        aria-label="Slots; step with the arrow keys"
        onKeyDown={step}
        style={{ position: 'relative', height: layout.height, margin: `0 ${MARGIN}px` }}
      >
        <canvas
          ref={canvas}
          aria-hidden
          data-testid="slot-canvas"
          style={{
            position: 'sticky',
            top: 0,
            display: 'block',
            width: Math.max(0, size.width - 2 * MARGIN),
            height: size.height,
          }}
        />
        {layout.cells
          .filter(({ y }) => within(y))
          .map(({ slot, x, y, width }) => (
            <button
              key={slot}
              type="button"
              data-slot={slot}
              tabIndex={slot === (chosen ?? first) ? 0 : -1}
              aria-label={nameSlot(slot, spans)}
              aria-pressed={slot === chosen}
              onClick={() => onChoose(slot)}
              style={{ ...OVER, left: x, top: y, width, height: layout.cellHeight }}
            />
          ))}
        {layout.gaps
          .filter(({ y }) => within(y))
          .map(({ from, to, x, y }) => (
            <button
              key={from}
              type="button"
              aria-label={`Open unpatched slots ${from + 1} to ${to + 1}`}
              onClick={() => setOpened((before) => new Set(before).add(from))}
              style={{ ...OVER, left: x, top: y, width: GAP_WIDTH, height: layout.cellHeight }}
            />
          ))}
      </div>
    </div>
  );
}

const OVER = { position: 'absolute', padding: 0, border: 0, background: 'transparent', cursor: 'pointer' } as const;
