/** Taking slots by number, and stepping along them one by one. */
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { formatRange, readRange, wireKey } from '@taxiarch/core/base/address';
import { useSlots, useLive } from '@/data/live';
import { holdsHere, setLevels } from '@/data/output';
import { useShow } from '@/data/show';
import { useDraft } from '@/forms/draft';
import { Button, Choice, Field, Screen, Section, Sentence, Slider, Text } from '@/ui';
import { Confirmed } from './Confirmed';
import { ArtNetNote } from './ArtNetNote';
import { Consent } from './Consent';
import { Forecast } from './Forecast';
import { useTaking } from './taking';

const SPEEDS = [
  { value: '0', label: 'By hand' },
  { value: '1000', label: '1 s' },
  { value: '250', label: '¼ s' },
] as const;
type Speed = (typeof SPEEDS)[number]['value'];

export function RangeTake() {
  const { records, patch } = useShow();
  const taking = useTaking();
  const output = useLive()?.output;
  const [typed, setTyped] = useDraft('range', '3/1-24');
  const [level, setLevel] = useState(0);
  const [stepping, setStepping] = useState(0);
  const [speed, setSpeed] = useState<Speed>('0');
  const range = readRange(typed);
  const universe = range.ok ? records.universe.find((one) => one.number === range.value.universe) : undefined;
  const fault = range.ok ? (universe ? undefined : `Universe ${range.value.universe} is not in the show.`) : range.why;
  const { from, to } = range.ok ? range.value : { from: 1, to: 1 };
  const held = range.ok && holdsHere(output, range.value.universe, from) && holdsHere(output, range.value.universe, to);
  const size = to - from + 1;
  const at = Math.min(stepping, size - 1);
  const key = universe && wireKey({ protocol: universe.protocol, number: universe.wire });
  const [now] = useSlots([{ key, slot: from + at - 1 }]);
  const here = range.ok && universe ? patch.at({ universe: universe.number, channel: from + at }) : [];

  const all = (value: number) =>
    universe
      ? Array.from({ length: size }, (_, i) => [{ universe: universe.number, channel: from + i }, value] as const)
      : [];

  /** Lights slot `place` of the run and darkens the others. */
  const light = (place: number) => {
    setStepping(place);
    setLevels(
      records.universe,
      all(0).map(([slot], i) => [slot, i === place ? 255 : 0] as const),
    );
  };

  useEffect(() => {
    if (speed === '0' || !held) return;
    const timer = setInterval(() => light((at + 1) % size), Number(speed));
    return () => clearInterval(timer);
  });

  return (
    <Screen
      sentence={
        <Sentence>
          {held ? `${formatRange({ universe: universe!.number, from, to })} is taken.` : 'Take slots by number.'}
        </Sentence>
      }
      acts={
        held ? (
          <Button label="Give back" grow onPress={() => void taking.giveBack([typed])} />
        ) : (
          <Button
            label="Take"
            look="main"
            grow
            disabled={fault !== undefined}
            onPress={() => void taking.take({ [typed]: null })}
          />
        )
      }
    >
      <Consent taking={taking} />
      <Field
        label="One slot or a run"
        value={typed}
        onChange={setTyped}
        mono
        fault={fault}
        placeholder="3/47 or 3/1-24"
      />
      {universe && !held && <Forecast universe={universe.number} />}
      {universe && held && <Confirmed universe={universe.number} />}
      {universe?.protocol === 'artnet' && held && key !== undefined && <ArtNetNote universeKey={key} />}
      <Slider
        label={size > 1 ? `Level of all ${size}` : 'Level'}
        value={level}
        max={255}
        reads={`${Math.round((level / 255) * 100)} %`}
        disabled={!held}
        onChange={(value) => {
          setLevel(value);
          setLevels(records.universe, all(value));
        }}
      />
      <Section title="Step along the run, one slot at full">
        <Choice label="Speed of stepping" options={SPEEDS} value={speed} onChange={setSpeed} />
        <View className="flex-row gap-2">
          <Button label="Slot before" grow disabled={!held} onPress={() => light((at - 1 + size) % size)} />
          <Button label="Next slot" look="main" grow disabled={!held} onPress={() => light((at + 1) % size)} />
        </View>
        <Text kind="mono">
          {universe ? `${universe.number}/${from + at}` : ''} {now ? `at ${now.value}` : ''}
        </Text>
        <Text kind="small">
          {here.length === 0
            ? 'No lamp is patched here.'
            : here.map(({ lamp }) => `${lamp.number} ${lamp.name}`).join(', ')}
        </Text>
      </Section>
    </Screen>
  );
}
