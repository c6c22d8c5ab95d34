/** What is to be matched, and how. */
import { useState } from 'react';
import { beginEye } from '@/data/eye';
import { placeFilter, usePreference } from '@/data/preferences';
import { useRoll } from '@/data/roll';
import { rigSelection, useSelection, walkSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { AskHot } from '@/areas/prove/roll/AskHot';
import { useLampActs } from '@/areas/prove/roll/useLampActs';
import { Button, Choice, Pick, Screen, Section, Sentence, Text, count } from '@/ui';

const HOW = [
  { value: 'asked', label: 'They answer' },
  { value: 'stretches', label: 'Without asking' },
] as const;
const FORGET = [
  { value: 'none', label: 'Keep what is matched' },
  { value: 'last', label: 'Match the new ones anew' },
  { value: 'all', label: 'Match all anew' },
] as const;

interface Part {
  readonly value: string;
  readonly label: string;
  readonly lampIds: readonly string[];
}

/** Everything, a place, a port, or the lamps that are chosen. */
function useParts(): readonly Part[] {
  const { records } = useShow();
  const rig = useSelection(rigSelection);
  const walk = useSelection(walkSelection);
  const roll = useRoll();
  const { lamp } = records;
  const ids = (some: typeof lamp) => some.map(({ id }) => id);
  const chosen = (rig.length > 0 ? rig : walk).filter((id) => lamp.some((one) => one.id === id));
  const onPort = (machineId: string, number: number) => {
    const universe = records.machine
      .find(({ id }) => id === machineId)
      ?.ports.find((one) => one.number === number)?.universe;
    return ids(lamp.filter((one) => one.universe === universe));
  };
  return [
    ...(chosen.length > 0 ? [{ value: 'chosen', label: `The ${chosen.length} that are chosen`, lampIds: chosen }] : []),
    { value: 'all', label: 'Everything', lampIds: ids(lamp) },
    ...[...records.place]
      .sort((a, b) => a.order - b.order)
      .map(({ id, name }) => ({ value: id, label: name, lampIds: ids(lamp.filter(({ placeId }) => placeId === id)) })),
    ...(roll?.ports ?? [])
      .filter(({ machineId }) => machineId !== '')
      .map(({ machineId, name, number }) => ({
        value: `${machineId} ${number}`,
        label: `${name}, port ${number}`,
        lampIds: onPort(machineId, number),
      })),
  ].filter(({ lampIds }) => lampIds.length > 0);
}

export function BeginEye() {
  const parts = useParts();
  const place = usePreference(placeFilter);
  const [part, setPart] = useState('');
  const [how, setHow] = useState<(typeof HOW)[number]['value']>('asked');
  const [forget, setForget] = useState<(typeof FORGET)[number]['value']>('none');
  const acts = useLampActs();
  const usual = parts[0]?.value === 'chosen' ? 'chosen' : place || 'all';
  const its = parts.find(({ value }) => value === (part || usual));
  const begin = () => acts.act(() => beginEye({ how, lampIds: its?.lampIds ?? [], forget }));
  return (
    <Screen
      sentence={<Sentence>Lamps light one by one; tap on the plan which it was.</Sentence>}
      foot={
        (acts.asking || acts.trouble !== '') && (
          <AskHot acts={acts} act="Make hot and begin">
            Taxiarch is safe and lights nothing. Once hot, the chosen lamps light, and may move when their settings
            change. Nothing else is touched.
          </AskHot>
        )
      }
      acts={
        <Button
          label={`Begin with ${count(its?.lampIds.length ?? 0, 'lamp')}`}
          look="main"
          grow
          disabled={!its || acts.working}
          onPress={begin}
        />
      }
    >
      <Section title="Which lamps">
        <Pick label="Which lamps" hideLabel options={parts} value={its?.value ?? ''} onChange={setPart} />
      </Section>
      <Section title="How">
        <Choice label="How" options={HOW} value={how} onChange={setHow} />
        <Text kind="small">
          {how === 'asked'
            ? 'Each lamp that answers shows itself; at a tap it gets the address and mode of the lamp that was tapped, and is read back.'
            : 'Stretches of universes are lit, halved where several lamps light; nothing is set. It ends with what is where.'}
        </Text>
      </Section>
      {how === 'asked' && (
        <Section title="What is matched already">
          <Pick
            label="What is matched already"
            hideLabel
            options={FORGET}
            value={forget}
            onChange={(value) => setForget(value as typeof forget)}
          />
        </Section>
      )}
    </Screen>
  );
}
