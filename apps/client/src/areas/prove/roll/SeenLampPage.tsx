/** One lamp as it tells of itself: planned beside seen, sensors, hours, and everything that it can be set to. */
import { Link, useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { RollReply, RollRow } from '@taxiarch/core/truth/roll';
import { takeOver } from '@taxiarch/core/truth/roll';
import { footprintOf } from '@taxiarch/core/rig/fixture';
import { identify, readRollAgain, setLamps, useParameters, useRoll, wishesOf } from '@/data/roll';
import { call } from '@/data/api';
import { propose, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Empty, Screen, Section, Sentence, StateWord, Text, count, spell, PageShape } from '@/ui';
import { ByHand, Parameter, SetAddress } from './LampSettings';
import { footOf } from './footOf';
import { useLampActs } from './useLampActs';

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
