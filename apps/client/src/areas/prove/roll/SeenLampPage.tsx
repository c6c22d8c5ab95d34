/** One lamp as it tells of itself: planned beside seen, sensors, hours, and everything that it can be set to. */
import { Link, useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { LampParameter, RollReply, RollRow } from '@taxiarch/core/truth/roll';
import { knownBy, takeOver } from '@taxiarch/core/truth/roll';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { wholeFrom } from '@/data/numbers';
import { identify, readRollAgain, setLamps, setParameter, useParameters, useRoll, wishesOf } from '@/data/roll';
import { call } from '@/data/api';
import { propose, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Empty, Field, Pick, Screen, Section, Sentence, StateWord, Text, count, spell, PageShape } from '@/ui';
import { footOf } from './footOf';
import { useLampActs, type LampActs } from './useLampActs';

export function SeenLampPage() {
  const { uid = '', also = '' } = useLocalSearchParams<{ uid: string; also?: string }>();
  const roll = useRoll();
  const row = roll?.rows.find((one) => one.uid === uid);
  if (!roll) return <PageShape />;
  if (!row?.seen)
    return (
      <Empty act={{ label: 'Roll call', href: '/prove/roll' }}>
        This lamp has not answered. Run a roll call first.
      </Empty>
    );
  return <Seen key={uid} roll={roll} row={row} seen={row.seen} also={also.split(',').filter(Boolean)} />;
}

function Fact({ label, value, odd = false }: { label: string; value: string; odd?: boolean }) {
  if (value === '') return null;
  return (
    <View className="min-h-8 flex-row items-center gap-3 border-b border-line">
      <Text kind="small" className="w-32">
        {label}
      </Text>
      <Text kind="mono" tone={odd ? 'fault' : 'text'} className="flex-1">
        {value}
      </Text>
    </View>
  );
}

function Parameter({
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

interface SeenProps {
  readonly roll: RollReply;
  readonly row: RollRow;
  readonly seen: NonNullable<RollRow['seen']>;
  /** Further lamps that are set alike, by their UIDs */
  readonly also: readonly string[];
}

function Seen({ roll, row, seen, also }: SeenProps) {
  const show = useShow();
  const router = useRouter();
  const acts = useLampActs();
  const { data, mutate } = useParameters(row.uid);
  const [taking, setTaking] = useState(false);
  const [shows, setShows] = useState(false);
  const wishes = row.state === 'differs' ? wishesOf([row]) : [];
  const name = row.number > 0 ? `${row.number} ${row.name}` : row.name;
  const makeType = async () => {
    const type = await call('readLampType', { params: { uid: row.uid } });
    await propose(`Made the type ${type.maker} ${type.name} from what a lamp tells`, [
      { kind: 'type', id: type.id, rev: null, after: type },
    ]);
    router.navigate(`/rig/types/${type.id}`);
  };
  const type = show.patch.lamp(row.lampId)?.type;
  const modes = seen.modes.map(({ name: mode, slots }, i) => ({
    value: String(i + 1),
    label: `${mode}, ${slots} slots`,
  }));
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <View className="flex-row items-center gap-3">
            <Text kind="label" className="flex-1">
              {name}
            </Text>
            <StateWord state={row.state} />
          </View>
          <Sentence>{row.says}</Sentence>
          <Text kind="small">
            Said {spell(Date.now() - seen.at)} ago{row.because === '' ? '' : `; known because ${row.because}`}.
          </Text>
        </View>
      }
      foot={footOf(acts, roll.rows)}
      acts={
        <>
          <Button
            label={shows ? 'Stop showing itself' : 'Show itself'}
            short={shows ? 'Stop' : 'Show itself'}
            disabled={acts.working}
            onPress={() =>
              acts.act(async () => {
                await identify([row.uid], !shows);
                setShows(!shows);
              })
            }
          />
          {wishes.length > 0 && (
            <>
              <Button label="Take it into the plan" short="Take over" onPress={() => setTaking(!taking)} />
              <Button label="Mend it" look="main" grow onPress={() => acts.act(() => setLamps(wishes))} />
            </>
          )}
        </>
      }
    >
      {taking && (
        <PlanPreview
          plan={takeOver(show, [row])}
          act="Take it into the plan"
          onDone={() => setTaking(false)}
          onWritten={() => void readRollAgain()}
        />
      )}
      <Section title="Planned beside seen">
        <Fact label="Planned" value={row.planned} />
        <Fact
          label="Address"
          value={String(seen.startAddress ?? 'none')}
          odd={row.differences.some(({ what }) => what === 'address')}
        />
        <Fact
          label="Mode"
          value={modes[seen.mode - 1]?.label ?? String(seen.mode)}
          odd={row.differences.some(({ what }) => what === 'mode')}
        />
        <Fact label="Port" value={row.port} odd={row.differences.some(({ what }) => what === 'port')} />
        <Fact label="Label" value={seen.label} />
        <Fact label="UID" value={seen.uid} />
        <Fact
          label="What it is"
          value={`${seen.maker} ${seen.model}`.trim()}
          odd={row.differences.some(({ what }) => what === 'type')}
        />
        <Fact label="Firmware" value={seen.firmware} />
        {row.lampId !== '' && (
          <Link href={`/rig/${row.lampId}`}>
            <Text tone="press">Its page in the rig</Text>
          </Link>
        )}
      </Section>
      <Section title="How it is">
        {seen.sensors.map((one) => (
          <Fact
            key={one.name}
            label={one.name}
            value={`${one.text}; normal ${one.least} to ${one.most}`}
            odd={!one.normal}
          />
        ))}
        <Fact label="Hours" value={seen.hours === null ? '' : `${seen.hours} h`} />
        <Fact label="Light source" value={seen.lightHours === null ? '' : `${seen.lightHours} h`} />
        <Fact label="Strikes" value={seen.strikes === null ? '' : String(seen.strikes)} />
        <Fact label="Switched on" value={seen.switchedOn === null ? '' : `${seen.switchedOn} times`} />
        {seen.errors.map((error) => (
          <Fact key={error} label="Says" value={error} odd />
        ))}
      </Section>
      {type && row.differences.some(({ what }) => what === 'mode' || what === 'type') && (
        <Section title="Its modes beside those of the type">
          {seen.modes.map(({ name: mode, slots }, i) => (
            <Fact
              key={i}
              label={`${mode}, ${slots} slots`}
              value={
                type.modes
                  .filter((one) => footprintOf(one) === slots)
                  .map((one) => one.name)
                  .join(', ') || 'none of that many'
              }
            />
          ))}
        </Section>
      )}
      <SetAddress key={`${seen.startAddress} ${seen.mode}`} row={row} seen={seen} modes={modes} acts={acts} />
      <Section title="Settings that it offers">
        {also.length > 0 && (
          <Text kind="small">
            What is set here is set at {count(also.length + 1, 'lamp')}: this one and {also.length} more.
          </Text>
        )}
        {!data && <Text kind="soft">Asking…</Text>}
        <View role="list" aria-label="Settings">
          {data?.parameters.map((one) => (
            <Parameter
              key={`${one.pid} ${one.part} ${one.value}`}
              one={one}
              uids={[row.uid, ...also]}
              acts={acts}
              onSet={() => void mutate()}
            />
          ))}
        </View>
      </Section>
      <ByHand row={row} />
      {row.lampId === '' && (
        <Section title="Not in the plan">
          <Text kind="small">
            A type can be made from what it tells of the mode that it is in; then lamps of it can be added to the rig.
          </Text>
          <Button label="Make a type of it" onPress={() => acts.act(makeType)} />
        </Section>
      )}
    </Screen>
  );
}

/** A person who knows better says which lamp it is. */
function ByHand({ row }: { row: RollRow }) {
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

function SetAddress({ row, seen, modes, acts }: SetAddressProps) {
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
