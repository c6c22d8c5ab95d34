/** The lamps of a roll call, planned beside seen; those that differ can be chosen. */
import { Link } from 'expo-router';
import type { ReactElement } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import type { RollRow } from '@taxiarch/core/truth/roll';
import { CheckBox, ListKeys, StateWord, Text, useWide } from '@/ui';

export const rowKey = ({ lampId, uid }: RollRow): string => lampId || uid;

interface Props {
  readonly rows: readonly RollRow[];
  readonly chosen: ReadonlySet<string>;
  readonly onToggle: (key: string) => void;
  readonly onChoose: (keys: readonly string[]) => void;
  readonly empty: string;
  /** Stands above the first and scrolls with them. */
  readonly above: ReactElement;
}

function Box({ row, on, onPress }: { row: RollRow; on: boolean; onPress: () => void }) {
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={`Choose ${row.number || row.name}`}
      onPress={onPress}
      className="h-12 w-10 items-start justify-center"
    >
      <CheckBox on={on} />
    </Pressable>
  );
}

function LampRow({ row, on, onToggle }: { row: RollRow; on: boolean; onToggle: (key: string) => void }) {
  const wide = useWide();
  const { number, name, state, says, port, confidence, because, seen } = row;
  const odd = seen !== null && (seen.errors.length > 0 || seen.sensors.some((one) => !one.normal));
  const href = seen ? (`/prove/roll/${encodeURIComponent(row.uid)}` as const) : (`/rig/${row.lampId}` as const);
  return (
    <View role="listitem" className="flex-row items-center border-b border-line px-4">
      {canChoose(row) ? <Box row={row} on={on} onPress={() => onToggle(rowKey(row))} /> : <View className="w-10" />}
      <Link href={href} asChild>
        <Pressable className="min-h-14 flex-1 gap-0.5 py-2">
          <View className="flex-row items-center gap-3">
            <Text kind="mono" className="w-12">
              {number || '–'}
            </Text>
            <Text numberOfLines={1} className="flex-1">
              {name}
            </Text>
            {wide && <Text kind="small">{port}</Text>}
            <StateWord state={odd && state === 'as planned' ? 'look at' : state} />
          </View>
          {(state !== 'as planned' || odd) && (
            <Text kind="small" className="pl-[60px]">
              {says}
              {confidence === 'likely' ? ` Likely: ${because}.` : ''}
            </Text>
          )}
        </Pressable>
      </Link>
    </View>
  );
}

/** A lamp that did not answer cannot be set. */
const canChoose = ({ seen, state }: RollRow): boolean => seen !== null && state !== 'no answer';

export function RollRows({ rows, chosen, onToggle, onChoose, empty, above }: Props) {
  return (
    <ListKeys
      ids={() => rows.filter(canChoose).map(rowKey)}
      chosen={[...chosen]}
      onChoose={onChoose}
      onEnd={() => onChoose([])}
    >
      <FlatList
        role="list"
        aria-label="Lamps"
        data={rows}
        keyExtractor={rowKey}
        extraData={chosen}
        ListHeaderComponent={above}
        initialNumToRender={20}
        renderItem={({ item }) => (
          <div data-row={canChoose(item) ? rowKey(item) : undefined}>
            <LampRow row={item} on={chosen.has(rowKey(item))} onToggle={onToggle} />
          </div>
        )}
        ListEmptyComponent={
          <Text kind="soft" className="px-4 py-3">
            {empty}
          </Text>
        }
      />
    </ListKeys>
  );
}
