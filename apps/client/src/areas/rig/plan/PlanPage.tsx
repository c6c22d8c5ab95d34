/** The plan of the ship: lamps in metres from above or from the side, alight as they receive. */
import { useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { putAt, setLocked, snap, spotOf, type Spot, type View as PlanSide } from '@taxiarch/core/rig/stage';
import { rigSelection, useSelection } from '@/data/selection';
import { placeFilter, usePreference } from '@/data/preferences';
import { propose, useShow } from '@/data/show';
import { Button, Choice, Notice, Pick, Sentence, Text, count, useWide } from '@/ui';
import { Arrange } from './Arrange';
import { metresFor, panBy, toPlan, zoomAt } from './camera';
import { PlanPicture } from './PlanPicture';
import { usePlanView } from './usePlanView';
import { usePointers } from './usePointers';

const SIDES = [
  { value: 'top', label: 'From above' },
  { value: 'side', label: 'From the side' },
] as const;
const TOOLS = [
  { value: 'look', label: 'Look' },
  { value: 'choose', label: 'Choose' },
  { value: 'move', label: 'Move' },
] as const;
type Tool = (typeof TOOLS)[number]['value'];
const SNAPS = [
  { value: '0', label: 'no snap' },
  { value: '0.1', label: '0.1 m' },
  { value: '0.5', label: '0.5 m' },
  { value: '1', label: '1 m' },
] as const;

export function PlanPage() {
  const show = useShow();
  const { patch } = show;
  const router = useRouter();
  const wide = useWide();
  const place = usePreference(placeFilter);
  const chosen = useSelection(rigSelection);
  const [side, setSide] = useState<PlanSide>('top');
  const [tool, setTool] = useState<Tool>('look');
  const [step, setStep] = useState('0.5');
  const [arranging, setArranging] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { holder, size, camera, drag, box, dirty, moving, keyOf, marks, regions, turned, markAt, look, reset } =
    usePlanView(side, place);
  const chosenSet = useMemo(() => new Set(chosen), [chosen]);

  const write = async (plan: ReturnType<typeof putAt>) => {
    setTrouble('');
    if (!plan.ok) return setTrouble(plan.why);
    try {
      await propose(plan.value.sentence, plan.value.changes);
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };

  usePointers(holder, {
    onTap: (at) => {
      const mark = markAt(at);
      if (!mark) return;
      if (tool !== 'look') {
        if (!mark.end) rigSelection.toggle(mark.id);
      } else router.navigate(`/rig/${mark.end ? 'pixels/' : ''}${mark.id}`);
    },
    onDragStart: (at) => {
      const mark = markAt(at);
      // Whoever drags a lamp that is not chosen means that lamp alone.
      if (tool === 'move' && mark && !mark.end && !chosenSet.has(mark.id)) rigSelection.set([mark.id]);
    },
    onDrag: (from, to) => {
      if (tool === 'choose') box.current = [from, to];
      else if (tool === 'move') drag.current = metresFor(camera.current, [to[0] - from[0], to[1] - from[1]]);
      else {
        const before = panned.current ?? from;
        look(panBy(camera.current, [to[0] - before[0], to[1] - before[1]]));
        panned.current = to;
      }
      dirty.current = true;
    },
    onDragEnd: (from, to) => {
      panned.current = undefined;
      if (tool === 'choose' && box.current) {
        const [a, b] = [toPlan(camera.current, size, from), toPlan(camera.current, size, to)];
        const within = (value: number, one: number, other: number) =>
          value >= Math.min(one, other) && value <= Math.max(one, other);
        const inside = marks.filter(
          ({ spot, end }) => !end && within(spot[0], a[0], b[0]) && within(spot[1], a[1], b[1]),
        );
        rigSelection.set([...rigSelection.read(), ...inside.map(({ id }) => id)]);
      }
      if (tool === 'move') {
        const [dx, dy] = drag.current;
        const ids = rigSelection.read();
        if (ids.length > 0 && (dx !== 0 || dy !== 0))
          void write(
            putAt(
              show,
              side,
              marks
                .filter(({ id }) => ids.includes(id))
                .map(
                  ({ id, spot }) => [id, [snap(spot[0] + dx, Number(step)), snap(spot[1] + dy, Number(step))]] as const,
                ),
            ),
          );
      }
      box.current = undefined;
      drag.current = [0, 0];
      dirty.current = true;
    },
    onPan: (by) => look(panBy(camera.current, by)),
    onZoom: (at, factor) => look(zoomAt(camera.current, size, at, factor)),
  });
  const panned = useRef<Spot | undefined>(undefined);

  const lamps = chosen.flatMap((id) => patch.lamp(id) ?? []);
  const allLocked = lamps.length > 0 && lamps.every(({ lamp }) => lamp.locked);
  const runs = marks.filter(({ end }) => end).length;
  const content = `${count(marks.length - runs, 'lamp')}${runs > 0 ? ` and ${count(runs, 'run')} of pixels` : ''}`;
  const first = lamps[0] ? spotOf(side, lamps[0].lamp) : ([0, 0] as const);
  const panel = arranging && lamps.length > 0 && (
    <ScrollView
      className={wide ? 'w-[340px] flex-none border-l border-line' : 'max-h-[70%] flex-none border-t border-line'}
      contentContainerClassName="gap-2 p-4"
    >
      <Arrange key={`${side} ${chosen.join()}`} ids={chosen} view={side} first={first} />
    </ScrollView>
  );
  return (
    <View className="flex-1 bg-ground">
      <View className="gap-2 px-4 pb-2 pt-3">
        <Sentence>
          {content} {side === 'top' ? 'from above' : 'from the side'}, the bow{' '}
          {side === 'top' && !turned ? 'up' : 'to the right'}
          {lamps.length > 0 && `; ${lamps.length} chosen`}.
        </Sentence>
        <Choice label="Side" options={SIDES} value={side} onChange={setSide} />
      </View>
      <View className={`flex-1 ${wide ? 'flex-row' : ''}`}>
        <View className="flex-1">
          <div
            ref={holder}
            style={{ flex: 1, minHeight: 160, position: 'relative', touchAction: 'none', overflow: 'hidden' }}
          >
            <PlanPicture
              size={size}
              marks={marks}
              regions={regions}
              chosen={chosenSet}
              keyOf={keyOf}
              moving={moving}
              label={`Plan with ${content}`}
            />
          </div>
          {!wide && panel}
          <View className="gap-2 border-t border-line bg-surface px-4 py-2">
            {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
            <View className="flex-row items-center gap-2">
              <View className="flex-1">
                <Choice label="Tool" options={TOOLS} value={tool} onChange={setTool} />
              </View>
              <View className="w-28">
                <Pick label="Snap" hideLabel options={SNAPS} value={step} onChange={setStep} />
              </View>
            </View>
            <View className="flex-row gap-2">
              <Button label="See all" onPress={reset} />
              {lamps.length > 0 ? (
                <>
                  <Button label="None" onPress={() => rigSelection.set([])} />
                  <Button
                    label={allLocked ? 'Unlock' : 'Lock'}
                    onPress={() => void write(setLocked(show, chosen, !allLocked))}
                  />
                  <Button
                    label={arranging ? 'Close' : 'Line up'}
                    look="main"
                    grow
                    onPress={() => setArranging(!arranging)}
                  />
                </>
              ) : (
                <Text kind="small" className="flex-1">
                  {tool === 'look'
                    ? 'Drag to move about, two fingers or the wheel to zoom, tap a lamp to open it.'
                    : tool === 'choose'
                      ? 'Tap lamps, or drag a box over them.'
                      : 'Drag a lamp to where it stands.'}
                </Text>
              )}
            </View>
          </View>
        </View>
        {wide && panel}
      </View>
    </View>
  );
}
