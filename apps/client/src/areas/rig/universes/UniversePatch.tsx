/**
 * One universe: itself, and its patch slot by slot: choose a lamp, then tap the slot where it shall begin; on a wide
 * screen it can be dragged there. Free runs with their lengths, and closing the gaps.
 */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { formatAddress, formatRange, readShowUniverse, type SlotAddress, SLOTS } from '@taxiarch/core/base/address';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { closeGaps, gapFor, lampsOf, lastChannel, moveTo, Occupancy, type Span } from '@taxiarch/core/rig/patch';
import type { Plan } from '@taxiarch/core/show/edit';
import { rigSelection, useSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Choice, Empty, Pick, Screen, Section, Sentence, Text, count, useColour } from '@/ui';
import { Draggable, useDrag, useDrop } from '@/ui/drag';
import { useAdding } from '../adding';
import { UniverseEditor } from './UniverseEditor';
import { UniverseStrip } from './UniverseStrip';
import { newId } from '@/data/numbers';

const COLUMNS = 16;

interface SlotBoxProps {
  channel: number;
  spans: readonly Span[];
  held: string;
  onPut: (id: string, channel: number) => void;
  onHold: (id: string) => void;
}

/** One slot: takes the lamp in hand when it is tapped, or one that is dropped on it. */
function SlotBox({ channel, spans, held, onPut, onHold }: SlotBoxProps) {
  const colour = useColour();
  const target = useRef<HTMLDivElement>(null);
  const over = useDrop(target, (id) => onPut(id, channel));
  const here = spans.filter((span) => span.channel <= channel && channel <= lastChannel(span));
  const [span] = here;
  const begins = span?.channel === channel;
  useDrag(target, span && !span.patched.run ? span.patched.lamp.id : undefined);
  const mine = span !== undefined && span.patched.lamp.id === held;
  const shade = span ? spans.indexOf(span) : 0;
  const state = here.length > 1 ? 'fault' : mine ? 'press' : undefined;
  return (
    <div
      role="button"
      tabIndex={0}
      aria-label={`Slot ${channel}, ${span ? `${span.patched.lamp.number} ${span.patched.lamp.name}` : 'free'}`}
      ref={target}
      onKeyDown={({ key }) => key === 'Enter' && (held ? onPut(held, channel) : span && onHold(span.patched.lamp.id))}
      onClick={() => (held ? onPut(held, channel) : span && !span.patched.run && onHold(span.patched.lamp.id))}
      style={{
        width: `${100 / COLUMNS}%`,
        height: 34,
        boxSizing: 'border-box',
        borderTop: `1px solid ${colour('line')}`,
        borderLeft: begins ? `3px solid ${colour('press')}` : `1px solid ${span ? 'transparent' : colour('line')}`,
        outline: over ? `2px solid ${colour('press')}` : 'none',
        background: state ? colour(state) : span ? colour(shade % 2 === 0 ? 'raised' : 'surface') : colour('ground'),
        color: state ? colour('onpress') : span ? colour('text') : colour('soft'),
        fontSize: 13,
        fontFamily: 'Fira Mono, monospace',
        position: 'relative',
        // A number may reach over the slots behind its own; at the end of a row, over those before it.
        display: 'flex',
        justifyContent: !begins ? 'center' : channel % COLUMNS === 0 ? 'flex-end' : 'flex-start',
        zIndex: begins ? 1 : 0,
        whiteSpace: 'nowrap',
        cursor: 'pointer',
        paddingTop: 8,
        paddingLeft: begins ? 3 : 0,
      }}
    >
      {begins ? span.patched.lamp.number : span ? '' : channel % 8 === 1 ? channel : '·'}
    </div>
  );
}

const VIEWS = [
  { value: 'slots', label: 'Slots' },
  { value: 'way', label: 'Name, number, way' },
] as const;

/** Stands in for the lamps that are being added, while they have no ids. */
const NEW_LAMPS = 'new lamps';

export function UniversePatch() {
  const { universe: token = '', view: asked } = useLocalSearchParams<{ universe: string; view?: string }>();
  const router = useRouter();
  const view = asked === 'way' ? 'way' : 'slots';
  const show = useShow();
  const { records, patch } = show;
  const read = readShowUniverse(token);
  const number = read.ok ? read.value : 0;
  const spans = patch.universe(number);
  const free = useMemo(() => new Occupancy(patch).freeRuns(number), [patch, number]);
  const chosen = useSelection(rigSelection);
  const [held, setHeld] = useState('');
  const [move, setMove] = useState<{ id: string; at: SlotAddress } | undefined>();
  const [closing, setClosing] = useState(false);
  const adding = useAdding();
  const plan = useMemo(
    (): Result<Plan> =>
      move === undefined
        ? refuse('nothing', 'Choose a lamp.')
        : move.id === NEW_LAMPS
          ? adding.planAt(move.at)
          : moveTo(show, move.id, move.at, newId),
    [show, move, adding],
  );
  const gap = useMemo(() => (move && move.id !== NEW_LAMPS ? gapFor(show, move.id, move.at) : undefined), [show, move]);
  const gapPlan = useMemo(() => closeGaps(show, number, newId), [show, number]);
  const candidates = useMemo(() => {
    const here = spans.filter(({ patched }) => !patched.run).map(({ patched }) => patched);
    const lamps = [...new Set([...lampsOf(show, chosen), ...here])].map(({ lamp }) => ({
      value: lamp.id,
      label: `${lamp.number} ${lamp.name}, ${formatAddress(lamp)}`,
    }));
    return adding.what === undefined ? lamps : [{ value: NEW_LAMPS, label: adding.what }, ...lamps];
  }, [show, chosen, spans, adding.what]);
  if (!read.ok) return <Empty>{read.why}</Empty>;
  const universe = records.universe.find((one) => one.number === number);
  const name = universe ? universe.name : 'not in the show';
  const used = SLOTS - free.reduce((sum, { length }) => sum + length, 0);
  const longest = free.reduce((most, { length }) => Math.max(most, length), 0);
  return (
    <Screen
      sentence={
        <Sentence>
          {[`Universe ${number}`, name].filter(Boolean).join(', ')}: {used} used, {longest} free together.
        </Sentence>
      }
      foot={
        move && (
          <>
            <PlanPreview
              key={`${move.id} ${formatAddress(move.at)}`}
              plan={plan}
              act={move.id === NEW_LAMPS ? 'Add them here' : 'Move it here'}
              onDone={() => {
                if (move.id === NEW_LAMPS) adding.done();
                setMove(undefined);
                setHeld('');
              }}
            />
            {gap && (
              <Button
                label={`Move it to the next gap, ${formatAddress(gap)}`}
                onPress={() => setMove({ ...move, at: gap })}
              />
            )}
            <Button label="Leave it" look="bare" onPress={() => setMove(undefined)} />
          </>
        )
      }
    >
      <Choice
        label="What is shown"
        options={VIEWS}
        value={view}
        onChange={(next) => router.setParams({ view: next } as Record<string, string>)}
      />
      {view === 'way' ? (
        universe ? (
          <UniverseEditor key={universe.id} universe={universe} />
        ) : (
          <Button
            label={`Add universe ${number} to the show`}
            look="main"
            onPress={() => router.navigate(`/rig/universes/add?universes=${number}`)}
          />
        )
      ) : (
        <>
          <UniverseStrip spans={spans} marked={held} />
          <View className="flex-row items-end gap-2">
            <View className="flex-1">
              <Pick
                label="Lamp in hand: choose, then tap the slot where it shall begin"
                options={[{ value: '', label: 'none' }, ...candidates]}
                value={held}
                onChange={setHeld}
              />
            </View>
            {held !== '' && <Button label="Put down" onPress={() => setHeld('')} />}
          </View>
          {adding.what !== undefined && (
            <Draggable what={NEW_LAMPS}>
              <Text tone="press">{adding.what}: drag onto the slot where the first shall begin</Text>
            </Draggable>
          )}
          <View className="flex-row flex-wrap">
            {Array.from({ length: SLOTS }, (_, i) => (
              <SlotBox
                key={i}
                channel={i + 1}
                spans={spans}
                held={held}
                onHold={setHeld}
                onPut={(id, channel) => id !== '' && setMove({ id, at: { universe: number, channel } })}
              />
            ))}
          </View>
          <Section title={`Free: ${count(free.length, 'run')}`}>
            {free.map(({ channel, length }) => (
              <View key={channel} className="flex-row justify-between">
                <Text kind="mono">{formatRange({ universe: number, from: channel, to: channel + length - 1 })}</Text>
                <Text kind="monoSmall">{length}</Text>
              </View>
            ))}
          </Section>
          <Section title="Gaps">
            {closing ? (
              <PlanPreview plan={gapPlan} act="Close the gaps" />
            ) : (
              <Button label="Close the gaps between lamps" onPress={() => setClosing(true)} />
            )}
          </Section>
        </>
      )}
    </Screen>
  );
}
