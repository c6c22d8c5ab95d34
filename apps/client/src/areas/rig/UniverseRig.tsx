/**
 * One universe's patch, slot by slot: choose a lamp, then tap the slot where it shall begin; on a wide
 * screen it can be dragged there. Free runs with their lengths, and closing the gaps.
 */
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState, type DragEvent } from 'react';
import { View } from 'react-native';
import { SLOTS, formatRange, readShowUniverse, refuse, type Read } from '@taxiarch/core/address';
import { Occupancy, closeGaps, lastChannel, lampsOf, moveTo, type Plan, type Span } from '@taxiarch/core/patch';
import { rigChosen, useChosen } from '@/data/chosen';
import { useShow } from '@/data/show';
import { Button, Empty, Pick, Screen, Section, Sentence, Text, count, useColour, PlanPreview } from '@/ui';
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
  const here = spans.filter((span) => span.channel <= channel && channel <= lastChannel(span));
  const [span] = here;
  const begins = span?.channel === channel;
  const mine = span !== undefined && span.patched.lamp.id === held;
  const shade = span ? spans.indexOf(span) : 0;
  const state = here.length > 1 ? 'fault' : mine ? 'press' : undefined;
  return (
    <div
      role="button"
      tabIndex={0}
      aria-label={`Slot ${channel}, ${span ? `${span.patched.lamp.number} ${span.patched.lamp.name}` : 'free'}`}
      draggable={span !== undefined && !span.patched.run}
      onDragStart={(event: DragEvent) => span && event.dataTransfer.setData('text/plain', span.patched.lamp.id)}
      onDragOver={(event: DragEvent) => event.preventDefault()}
      onDrop={(event: DragEvent) => {
        event.preventDefault();
        onPut(event.dataTransfer.getData('text/plain'), channel);
      }}
      onKeyDown={({ key }) => key === 'Enter' && (held ? onPut(held, channel) : span && onHold(span.patched.lamp.id))}
      onClick={() => (held ? onPut(held, channel) : span && !span.patched.run && onHold(span.patched.lamp.id))}
      style={{
        width: `${100 / COLUMNS}%`,
        height: 34,
        boxSizing: 'border-box',
        borderTop: `1px solid ${colour('line')}`,
        borderLeft: begins ? `3px solid ${colour('press')}` : `1px solid ${span ? 'transparent' : colour('line')}`,
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

export function UniverseRig() {
  const { universe: token = '' } = useLocalSearchParams<{ universe: string }>();
  const show = useShow();
  const { records, patch } = show;
  const read = readShowUniverse(token);
  const number = read.ok ? read.value : 0;
  const spans = patch.universe(number);
  const free = useMemo(() => new Occupancy(patch).freeRuns(number), [patch, number]);
  const chosen = useChosen(rigChosen);
  const [held, setHeld] = useState('');
  const [move, setMove] = useState<{ id: string; channel: number } | undefined>();
  const [closing, setClosing] = useState(false);
  const plan = useMemo(
    (): Read<Plan> =>
      move ? moveTo(show, move.id, { universe: number, channel: move.channel }, newId) : refuse('Choose a lamp.'),
    [show, move, number],
  );
  const gapPlan = useMemo(() => closeGaps(show, number, newId), [show, number]);
  const candidates = useMemo(() => {
    const here = spans.filter(({ patched }) => !patched.run).map(({ patched }) => patched);
    return [...new Set([...lampsOf(show, chosen), ...here])].map(({ lamp }) => ({
      value: lamp.id,
      label: `${lamp.number} ${lamp.name}, ${lamp.universe}/${lamp.channel}`,
    }));
  }, [show, chosen, spans]);
  if (!read.ok) return <Empty>{read.why}</Empty>;
  const name = records.universe.find((one) => one.number === number)?.name ?? 'not in the show';
  const used = SLOTS - free.reduce((sum, { length }) => sum + length, 0);
  const longest = free.reduce((most, { length }) => Math.max(most, length), 0);
  return (
    <Screen
      sentence={
        <Sentence>
          Universe {number}, {name}: {used} used, {longest} free together.
        </Sentence>
      }
    >
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
      {move && (
        <View className="gap-2 rounded border border-line bg-surface p-3">
          <PlanPreview key={`${move.id} ${move.channel}`} plan={plan} act="Move it here" onDone={() => setHeld('')} />
          <Button label="Leave it" look="bare" onPress={() => setMove(undefined)} />
        </View>
      )}
      <View className="flex-row flex-wrap">
        {Array.from({ length: SLOTS }, (_, i) => (
          <SlotBox
            key={i}
            channel={i + 1}
            spans={spans}
            held={held}
            onHold={setHeld}
            onPut={(id, channel) => id !== '' && setMove({ id, channel })}
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
    </Screen>
  );
}
