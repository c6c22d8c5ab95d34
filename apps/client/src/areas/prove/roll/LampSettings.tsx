/** What can be set at a lamp: its address and mode, and each setting that it offers; and which lamp it is, said by hand. */
import { useState } from 'react';
import { View } from 'react-native';
import { knownBy, type LampParameter, type RollRow } from '@taxiarch/core/truth/roll';
import { wholeFrom } from '@/data/numbers';
import { readRollAgain, setLamps, setParameter } from '@/data/roll';
import { propose, useShow } from '@/data/show';
import { Button, Field, Pick, Section, Text } from '@/ui';
import type { LampActs } from './useLampActs';

/** One setting of all `uids`. */
export function Parameter({
  one,
  uids,
  acts,
  onSet,
}: {
  one: LampParameter;
  uids: readonly string[];
  acts: LampActs;
  onSet: () => void;
}) {
  const [value, setValue] = useState(String(one.value ?? ''));
  const changed = value !== String(one.value ?? '');
  const set = () =>
    acts.act(async () => {
      const results = await setParameter(uids, one.pid, one.isText ? value : Number(value), one.part);
      onSet();
      return results;
    });
  const range = one.isText ? `at most ${one.most} characters` : `${one.least}–${one.most} ${one.unit}`.trim();
  return (
    <View role="listitem" className="gap-1 border-b border-line py-2">
      <View className="flex-row items-center gap-3">
        <View className="flex-1">
          <Text>{one.name}</Text>
          {one.settable && one.choices.length === 0 && <Text kind="small">{range}</Text>}
        </View>
        <Text kind={one.why === undefined ? 'mono' : 'small'} className={one.why === undefined ? '' : 'flex-1'}>
          {one.why ?? one.text}
        </Text>
      </View>
      {one.settable && one.why === undefined && (
        <View className="flex-row items-end gap-2">
          <View className="flex-1">
            {one.choices.length > 0 ? (
              <Pick
                label={one.name}
                hideLabel
                options={[
                  ...(one.value === null ? [{ value: '', label: 'choose' }] : []),
                  ...one.choices.map(({ value: each, label }) => ({ value: String(each), label })),
                ]}
                value={value}
                onChange={setValue}
              />
            ) : (
              <Field
                label={`${one.name}, ${range}`}
                hideLabel
                mono
                value={value}
                onChange={setValue}
                onSubmitEditing={set}
              />
            )}
          </View>
          <Button label={`Set ${one.name}`} short="Set" disabled={!changed || acts.working} onPress={set} />
        </View>
      )}
    </View>
  );
}

/** A person who knows better says which lamp it is. */
export function ByHand({ row }: { row: RollRow }) {
  const { records } = useShow();
  const [number, setNumber] = useState('');
  const [trouble, setTrouble] = useState('');
  const match = () => {
    const lamp = records.lamp.find((one) => one.number === wholeFrom(number));
    if (!lamp) return setTrouble(`No lamp has the number ${number}.`);
    setTrouble('');
    const changes = knownBy(records.lamp, lamp.id, row.uid);
    propose(`Matched ${lamp.number} ${lamp.name} by hand`, changes).then(readRollAgain, (error: Error) =>
      setTrouble(error.message),
    );
  };
  return (
    <Section title={row.lampId === '' ? 'Which lamp it is' : 'If it is another lamp'}>
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Field
            label="It is lamp number"
            mono
            value={number}
            onChange={setNumber}
            fault={trouble || undefined}
            onSubmitEditing={match}
          />
        </View>
        <Button label="Match by hand" short="Match" disabled={wholeFrom(number) === undefined} onPress={match} />
      </View>
    </Section>
  );
}

interface SetAddressProps {
  readonly row: RollRow;
  readonly seen: NonNullable<RollRow['seen']>;
  readonly modes: readonly { readonly value: string; readonly label: string }[];
  readonly acts: LampActs;
}

export function SetAddress({ row, seen, modes, acts }: SetAddressProps) {
  const [address, setAddress] = useState(String(seen.startAddress ?? ''));
  const [mode, setMode] = useState(String(seen.mode));
  const number = Number(address);
  const wrong = !Number.isInteger(number) || number < 1 || number > 512;
  const same = number === seen.startAddress && Number(mode) === seen.mode;
  return (
    <Section title="Set at the lamp">
      <View className="flex-row items-end gap-2">
        <View className="w-28">
          <Field
            label="Start channel"
            mono
            value={address}
            onChange={setAddress}
            fault={wrong ? '1 to 512' : undefined}
          />
        </View>
        <View className="flex-1">
          <Pick label="Mode" options={modes} value={mode} onChange={setMode} />
        </View>
        <Button
          label="Set at the lamp"
          short="Set"
          disabled={wrong || same || acts.working}
          onPress={() =>
            acts.act(() =>
              setLamps([{ uid: row.uid, address: number, ...(Number(mode) !== seen.mode && { mode: Number(mode) }) }]),
            )
          }
        />
      </View>
      <Text kind="small">How it is set now is kept first, under Settings of lamps.</Text>
    </Section>
  );
}
