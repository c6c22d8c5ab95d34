/** Roll call: every lamp of the plan with what it says itself, and what can be done about those that differ. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { matchesWords } from '@taxiarch/core/network/jump';
import { keepUids, takeOver, type RollReply, type RollRow } from '@taxiarch/core/truth/roll';
import { placeFilter, usePreference } from '@/data/preferences';
import { callRoll, cancelRoll, identify, readRollAgain, setLamps, useRoll, wishesOf } from '@/data/roll';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Field, Pick, Screen, Sentence, Text, spell, useWide, PageShape } from '@/ui';
import { AskHot } from './AskHot';
import { Outcomes } from './Outcomes';
import { RollRows, rowKey } from './RollRows';
import { Troubles } from './Troubles';
import { useLampActs } from './useLampActs';
import { ROLL_ORDER } from './words';

const STATES = [{ value: '', label: 'All states' }, ...ROLL_ORDER.map((state) => ({ value: state, label: state }))];

function Progress({ roll: { progress } }: { roll: RollReply }) {
  const { running, done, more, of, ports, ofPorts, began, ended, cancelled, why } = progress;
  if (running) {
    const all = of > 0 && done === of && ports === ofPorts;
    const share = of === 0 ? 0 : (all ? more : done) / of;
    return (
      <View className="gap-1">
        <Text kind="small">
          {all
            ? `How all are set is known; hours and sensors of ${more} of ${of}.`
            : `${ports} of ${ofPorts} ports told who hangs there; ${done} of ${of} lamps read.`}
        </Text>
        <View className="h-2 rounded bg-raised">
          <View className="h-2 rounded bg-press" style={{ width: `${Math.round(share * 100)}%` }} />
        </View>
      </View>
    );
  }
  if (began === 0) return <Text kind="small">Lamps are only asked; nothing is set or lit.</Text>;
  return (
    <Text kind="small">
      {cancelled ? 'Ended' : 'Called'} {spell(Date.now() - ended)} ago, in {Math.round((ended - began) / 1000)} s.
      {why !== '' && ` It broke off: ${why}`}
    </Text>
  );
}

/** Ways to sort, what a person looks for first on top */
const ORDERS = [
  { value: 'state', label: 'By state' },
  { value: 'number', label: 'By number' },
  { value: 'port', label: 'By port' },
  { value: 'hours', label: 'Most hours' },
  { value: 'warm', label: 'Warmest' },
] as const;
type Order = (typeof ORDERS)[number]['value'];

const inWords = new Intl.Collator('en', { numeric: true }).compare;
const warmth = ({ seen }: RollRow): number => Math.max(-Infinity, ...(seen?.sensors.map(({ value }) => value) ?? []));
const SORTS: Readonly<Record<Order, (a: RollRow, b: RollRow) => number>> = {
  state: (a, b) => ROLL_ORDER.indexOf(a.state) - ROLL_ORDER.indexOf(b.state),
  number: () => 0,
  port: (a, b) => inWords(a.port || '~', b.port || '~'),
  hours: (a, b) => (b.seen?.hours ?? -1) - (a.seen?.hours ?? -1),
  warm: (a, b) => (warmth(a) === warmth(b) ? 0 : warmth(b) - warmth(a)),
};

interface Wanted {
  readonly query: string;
  readonly state: string;
  readonly node: string;
  readonly order: Order;
}

function useShown(rows: readonly RollRow[], { query, state, node, order }: Wanted): readonly RollRow[] {
  const place = usePreference(placeFilter);
  return useMemo(
    () =>
      rows
        .filter(
          (row) =>
            (state === '' || row.state === state) &&
            (node === '' || row.machineId === node) &&
            (place === '' || row.lampId === '' || row.place === place) &&
            (query === '' ||
              matchesWords(`${row.number} ${row.name} ${row.uid} ${row.port} ${row.seen?.label ?? ''}`, query)),
        )
        .sort((a, b) => SORTS[order](a, b) || a.number - b.number),
    [rows, query, state, node, order, place],
  );
}

export function RollPage() {
  const roll = useRoll();
  if (!roll) return <PageShape />;
  return <Roll roll={roll} />;
}

function Roll({ roll }: { roll: RollReply }) {
  const show = useShow();
  const wide = useWide();
  const { node: asked = '' } = useLocalSearchParams<{ node?: string }>();
  const [wanted, setWanted] = useState<Wanted>({ query: '', state: '', node: asked, order: 'state' });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [writing, setWriting] = useState<'take over' | 'keep' | ''>('');
  const [trouble, setTrouble] = useState('');
  const [shows, setShows] = useState(false);
  const router = useRouter();
  const acts = useLampActs();
  const shown = useShown(roll.rows, wanted);
  const picked = roll.rows.filter((row) => chosen.has(rowKey(row)));
  const uids = picked.map(({ uid }) => uid);
  const differ = (picked.length > 0 ? picked : shown).filter(({ state }) => state === 'differs');
  const wishes = wishesOf(differ);
  const sure = roll.rows.filter(
    ({ confidence, lampId, uid }) => confidence === 'sure' && show.patch.lamp(lampId)?.lamp.uid !== uid,
  );
  const nodes = [
    ...new Map(roll.ports.filter(({ machineId }) => machineId !== '').map((one) => [one.machineId, one.name])),
  ];
  const plan = writing === '' ? undefined : writing === 'keep' ? keepUids(show, roll.rows) : takeOver(show, differ);
  const attempt = (work: Promise<unknown>) => {
    setTrouble('');
    work.catch((error: Error) => setTrouble(error.message));
  };
  const toggle = (key: string) => {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    setChosen(next);
  };
  const mend = () =>
    acts.act(async () => {
      const results = await setLamps(wishes);
      setChosen(new Set());
      return results;
    });
  const ports = roll.ports.filter(({ machineId }) => wanted.node === '' || machineId === wanted.node);
  const many = (some: readonly unknown[]) => (some.length === 1 ? 'it' : `${some.length}`);
  const { running } = roll.progress;
  return (
    <Screen
      fixed
      sentence={
        <View className="gap-2">
          <Sentence>{roll.sentence}</Sentence>
          <Progress roll={roll} />
        </View>
      }
      foot={
        acts.asking || acts.trouble !== '' || acts.results || writing !== '' || trouble !== '' ? (
          <>
            {trouble !== '' && <Text tone="fault">{trouble}</Text>}
            <AskHot acts={acts} />
            {acts.results && <Outcomes results={acts.results} rows={roll.rows} onClose={acts.close} />}
            {plan && (
              <>
                <PlanPreview
                  plan={plan}
                  act={writing === 'keep' ? 'Keep who they are' : 'Take into the plan'}
                  onWritten={() => {
                    setWriting('');
                    setChosen(new Set());
                    void readRollAgain();
                  }}
                />
                <Button label="Leave the plan as it is" onPress={() => setWriting('')} />
              </>
            )}
          </>
        ) : undefined
      }
      acts={
        running ? (
          <Button label="End the call" grow onPress={() => attempt(cancelRoll())} />
        ) : (
          <>
            {differ.length > 0 && (
              <>
                <Button
                  label={`Mend ${many(wishes)} at the lamp`}
                  short={`Mend ${many(wishes)}`}
                  look="main"
                  disabled={acts.working || wishes.length === 0}
                  grow={!wide}
                  onPress={mend}
                />
                <Button
                  label={`Take ${many(differ)} into the plan`}
                  short={wide ? `Take ${many(differ)} into the plan` : 'Take over'}
                  onPress={() => setWriting('take over')}
                />
              </>
            )}
            {differ.length === 0 && picked.length === 0 && sure.length > 0 && (
              <Button label={`Keep who ${sure.length} are`} onPress={() => setWriting('keep')} />
            )}
            {picked.length > 0 && differ.length === 0 && (
              <>
                <Button
                  label={`${shows ? 'Stop showing' : 'Show'} ${picked.length}`}
                  short={shows ? 'Stop' : `Show ${picked.length}`}
                  disabled={acts.working}
                  onPress={() =>
                    acts.act(async () => {
                      await identify(uids, !shows);
                      setShows(!shows);
                    })
                  }
                />
                <Button
                  label={`Settings of ${picked.length}`}
                  short="Settings"
                  onPress={() =>
                    router.navigate(`/prove/roll/${encodeURIComponent(uids[0]!)}?also=${uids.slice(1).join(',')}`)
                  }
                />
              </>
            )}
            <Button
              label="Call the roll"
              short={differ.length > 0 && !wide ? 'Call' : 'Call the roll'}
              look={differ.length > 0 ? 'plain' : 'main'}
              grow={differ.length === 0 || wide}
              onPress={() => attempt(callRoll(wanted.node === '' ? undefined : ports))}
            />
          </>
        )
      }
    >
      <View className="gap-2 px-4 pb-2">
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field
              label="Search"
              hideLabel
              placeholder="Number, name, UID, port"
              value={wanted.query}
              onChange={(query) => setWanted({ ...wanted, query })}
            />
          </View>
          <View className="w-36">
            <Pick
              label="State"
              hideLabel
              options={STATES}
              value={wanted.state}
              onChange={(state) => setWanted({ ...wanted, state })}
            />
          </View>
          {wide && (
            <View className="w-36">
              <Pick
                label="Order"
                hideLabel
                options={ORDERS}
                value={wanted.order}
                onChange={(order) => setWanted({ ...wanted, order: order as Order })}
              />
            </View>
          )}
          {wide && (
            <View className="w-48">
              <Pick
                label="Node"
                hideLabel
                options={[{ value: '', label: 'All nodes' }, ...nodes.map(([value, label]) => ({ value, label }))]}
                value={wanted.node}
                onChange={(node) => setWanted({ ...wanted, node })}
              />
            </View>
          )}
          {wide && <Button label="Hours as CSV" onPress={() => window.location.assign('/api/export/roll')} />}
        </View>
      </View>
      <RollRows
        rows={shown}
        chosen={chosen}
        onToggle={toggle}
        onChoose={(keys) => setChosen(new Set(keys))}
        empty="No lamp fits."
        above={<Troubles roll={roll} acts={acts} />}
      />
    </Screen>
  );
}
