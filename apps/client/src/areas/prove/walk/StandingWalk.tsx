/** How a walk stands: each item with its word, who said so, and what changed since. */
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { formatAddress } from '@taxiarch/core/base/address';
import type { Walk } from '@taxiarch/core/show/records';
import { WALK_STATES, channelName, type WalkRow } from '@taxiarch/core/proving/walk';
import type { ProposedChange } from '@taxiarch/core/show/edit';
import { useListChoice } from '@/data/preferences';
import { propose, useShow } from '@/data/show';
import { beginWalk, useSwaps, useWalk } from '@/data/walks';
import { Button, Empty, Notice, Pick, Screen, Sentence, StateWord, Text, PageShape } from '@/ui';
import { WaitingMarks } from './WaitingMarks';

/** What stands against it first. */
const FIRST = ['disputed', 'failed', 'untried', 'skipped', 'proved'] as const satisfies readonly WalkRow['state'][];
const STATES = [{ value: '', label: 'All' }, ...WALK_STATES.map((state) => ({ value: state, label: state }))];

const saidText = ({ by, result, why, note, timeCode }: WalkRow['said'][number]): string =>
  `${by}: ${result}${why === '' ? '' : `, ${why}`}${note === '' ? '' : ` (${note})`}${timeCode === '' ? '' : `, at ${timeCode}`}`;

function ItemRow({ row, onPress }: { row: WalkRow; onPress: () => void }) {
  const { patch } = useShow();
  const patched = patch.lamp(row.lampId);
  if (!patched) return null;
  const { lamp, mode } = patched;
  const channel = mode.channels[row.channel - 1];
  const old = row.changed.length > 0;
  return (
    <Pressable
      role="button"
      aria-label={`${lamp.number} ${lamp.name}${channel ? `, ${channelName(channel)}` : ''}, ${row.state}`}
      onPress={onPress}
      className="min-h-14 gap-1 border-b border-line px-4 py-2 active:bg-raised"
    >
      <View className="flex-row items-center gap-3">
        <Text kind="mono" className="w-12">
          {lamp.number}
        </Text>
        <Text numberOfLines={1} className="flex-1">
          {lamp.name}
          {channel && `, ${channelName(channel)}`}
        </Text>
        <Text kind="monoSmall">{formatAddress(lamp)}</Text>
        {!(old && row.state === 'proved') && <StateWord state={row.state} />}
      </View>
      {row.said.length > 0 && (row.state !== 'proved' || old) && (
        <Text kind="small">{row.said.map(saidText).join(' · ')}</Text>
      )}
      {old && (
        <View className="gap-1">
          {row.state === 'proved' && <StateWord state="proved before the change" />}
          <Text kind="small" tone="warn">
            Changed since: {row.changed.join('; ')}
          </Text>
        </View>
      )}
      {row.said.map(
        ({ photo, by }) =>
          photo !== '' && (
            <img
              key={photo}
              src={`/api/photos/${photo}`}
              alt={`Photograph by ${by}`}
              style={{ maxWidth: 160, maxHeight: 120, borderRadius: 6 }}
            />
          ),
      )}
    </Pressable>
  );
}

function Swapped({ walk }: { walk: Walk }) {
  const swaps = useSwaps(walk.id)?.swaps ?? [];
  const [trouble, setTrouble] = useState('');
  const mend = (sentence: string, changes: readonly object[]) =>
    void propose(sentence, changes as readonly ProposedChange[]).catch((error: Error) => setTrouble(error.message));
  return swaps.map(({ lampId, sentence, repairs }) => (
    <Notice
      key={`${lampId} ${sentence}`}
      state="must fix"
      act={
        <View className="gap-2">
          {trouble !== '' && <Text tone="fault">{trouble}</Text>}
          {repairs.map((repair) => (
            <View key={repair.sentence} className="gap-1">
              <Text kind="small">
                {repair.before} → {repair.after}
              </Text>
              <Button label={repair.sentence} onPress={() => mend(repair.sentence, repair.changes)} />
            </View>
          ))}
        </View>
      }
    >
      {sentence}
    </Notice>
  ));
}

export function StandingWalk({ walk, onWalk }: { walk: Walk; onWalk: (key: string) => void }) {
  const { data: reply, error } = useWalk(walk.id);
  const router = useRouter();
  const [state, setState] = useListChoice(`walk ${walk.id} state`, '');
  const rows = useMemo(
    () =>
      [...(reply?.rows ?? [])]
        .filter((one) => state === '' || one.state === state)
        .sort((a, b) => FIRST.indexOf(a.state) - FIRST.indexOf(b.state)),
    [reply, state],
  );
  if (!reply) return error ? <Empty>{error.message}</Empty> : <PageShape />;
  /** The same once more, as a walk of its own: what was marked in this one stays as it is. */
  const again = async () => {
    const { covers, order, unit, pictures, lampIds } = walk;
    const name = `${walk.name.slice(0, 110)}, again`;
    const next = await beginWalk({ name, covers, order, unit, pictures, lampIds });
    router.navigate({ pathname: '/prove/walks/[walk]', params: { walk: next } });
  };
  const open = reply.rows.some((one) => one.state === 'untried');
  return (
    <Screen
      fixed
      sentence={
        <View className="gap-2">
          <Text kind="small">{walk.name}</Text>
          <Sentence>{reply.sentence}</Sentence>
          {error && <Text tone="warn">Not as it is now: {error.message}</Text>}
          <WaitingMarks />
          {walk.unit === 'channel' && <Swapped walk={walk} />}
          <Pick label="State" hideLabel options={STATES} value={state} onChange={setState} />
        </View>
      }
      acts={
        open ? (
          <Button label="Walk on" look="main" grow onPress={() => onWalk('')} />
        ) : (
          <Button label="Walk all of it anew" look="main" grow onPress={() => void again()} />
        )
      }
    >
      <FlatList
        data={rows}
        keyExtractor={({ key }) => key}
        renderItem={({ item }) => <ItemRow row={item} onPress={() => onWalk(item.key)} />}
        initialNumToRender={16}
        ListEmptyComponent={
          <Text kind="soft" className="px-4 py-3">
            None is {state}.
          </Text>
        }
      />
    </Screen>
  );
}
