/** Addresses for the lamps of chosen ports, so that none is in another's way; settings that were kept, put back. */
import { useState } from 'react';
import { View } from 'react-native';
import {
  ARRANGE_ORDERS,
  arrange,
  lampPortKey,
  lampsToArrange,
  type ArrangeOrder,
  type RollReply,
} from '@taxiarch/core/truth/roll';
import { callRoll, setGreeting, setLamps, useGreeting, useRoll } from '@/data/roll';
import { useShow } from '@/data/show';
import { Button, Check, Choice, Pick, Screen, Section, Sentence, Text, count, dayAndTime, PageShape } from '@/ui';
import { footOf } from './footOf';
import { useLampActs, type LampActs } from './useLampActs';

const WORDS: Readonly<Record<ArrangeOrder, string>> = {
  plan: 'As planned',
  number: 'By number',
  least: 'Least moves',
};
const ORDERS = ARRANGE_ORDERS.map((value) => ({ value, label: WORDS[value] }));

export function ArrangePage() {
  const roll = useRoll();
  if (!roll) return <PageShape />;
  return <Arrange roll={roll} />;
}

function Arrange({ roll }: { roll: RollReply }) {
  const { patch } = useShow();
  const asked = roll.ports.filter(({ found }) => found > 0);
  const [key, setKey] = useState('');
  const [order, setOrder] = useState<ArrangeOrder>('least');
  const acts = useLampActs();
  const chosen = asked.filter((port) => key === '' || lampPortKey(port) === key);
  const arranged = chosen.map((port) => arrange(lampsToArrange(roll.rows, port, patch), order));
  const moves = arranged.flatMap((one) => one.moves);
  const unplaced = arranged.flatMap((one) => one.unplaced);
  return (
    <Screen
      sentence={
        <Sentence>
          {asked.length === 0
            ? 'Nobody has answered yet. Call the roll first.'
            : moves.length === 0
              ? 'Nothing would move: no lamp is in another’s way.'
              : `${count(moves.length, 'lamp')} would get another address.`}
          {unplaced.length > 0 && ` ${count(unplaced.length, 'lamp')} find no room.`}
        </Sentence>
      }
      foot={footOf(acts, roll.rows)}
      acts={
        asked.length === 0 ? (
          <Button label="Call the roll" look="main" grow onPress={() => void callRoll()} />
        ) : (
          <Button
            label={moves.length === 0 ? 'Set addresses' : `Set ${count(moves.length, 'address', 'addresses')}`}
            look="main"
            grow
            disabled={moves.length === 0 || acts.working}
            onPress={() => acts.act(() => setLamps(moves.map(({ uid, after }) => ({ uid, address: after }))))}
          />
        )
      }
    >
      <Pick
        label="Ports"
        options={[
          { value: '', label: 'All ports that were asked' },
          ...asked.map((port) => ({ value: lampPortKey(port), label: `${port.name}, port ${port.number}` })),
        ]}
        value={key}
        onChange={setKey}
      />
      <Text kind="label">Order</Text>
      <Choice label="Order" options={ORDERS} value={order} onChange={setOrder} />
      <Text kind="small">
        Modes are kept, locked lamps stay, nothing overlaps. What the lamps are set to is read back; take it into the
        plan from the roll call.
      </Text>
      <View role="list" aria-label="What would be set">
        {moves.map(({ uid, name, before, after, why }) => (
          <View key={uid} role="listitem" className="min-h-10 flex-row items-center gap-3 border-b border-line py-1">
            <View className="flex-1">
              <Text numberOfLines={1}>{name}</Text>
              <Text kind="small">{why}</Text>
            </View>
            <Text kind="mono">
              {before ?? '–'} → {after}
            </Text>
          </View>
        ))}
        {unplaced.map(({ uid, name }) => (
          <View key={uid} role="listitem" className="min-h-10 flex-row items-center gap-3 border-b border-line py-1">
            <Text tone="fault" className="flex-1">
              {name} finds no room
            </Text>
          </View>
        ))}
      </View>
      <Kept roll={roll} acts={acts} />
      <Greets />
    </Screen>
  );
}

function Greets() {
  const greets = useGreeting();
  return (
    <Section title="New lamps">
      <Check
        label="Greet a new lamp with a notice when the roll is called by itself"
        on={greets}
        onChange={(on) => void setGreeting(on)}
      />
      <Text kind="small">How often that is stands in the settings under Show.</Text>
    </Section>
  );
}

/** Settings of lamps that were kept before they were changed. */
function Kept({ roll, acts }: { roll: RollReply; acts: LampActs }) {
  const { records } = useShow();
  const kept = [...records.lampSettings].sort((a, b) => (a.at < b.at ? 1 : -1));
  const there = new Set(roll.rows.flatMap(({ seen, uid }) => (seen ? [uid] : [])));
  if (kept.length === 0) return null;
  return (
    <Section title="Settings of lamps that were kept">
      <View role="list" aria-label="Kept settings">
        {kept.slice(0, 20).map(({ id, name, at, lamps }) => {
          const known = lamps.filter(({ uid }) => there.has(uid));
          return (
            <View key={id} role="listitem" className="min-h-12 flex-row items-center gap-3 border-b border-line">
              <View className="flex-1">
                <Text numberOfLines={1}>{name}</Text>
                <Text kind="small">
                  {dayAndTime(at)}, {count(lamps.length, 'lamp')}
                </Text>
              </View>
              <Button
                label={`Put back ${name}`}
                short="Put back"
                disabled={known.length === 0 || acts.working}
                onPress={() =>
                  acts.act(() =>
                    setLamps(
                      known.map(({ uid, address, personality, label }) => ({
                        ...{ uid, mode: personality, label },
                        ...(address !== null && { address }),
                      })),
                    ),
                  )
                }
              />
            </View>
          );
        })}
      </View>
    </Section>
  );
}
