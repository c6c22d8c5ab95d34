/** The rows of the list of machines, drawn again only when what they say changes. */
import { memo, useCallback, useMemo } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { type MachineEntry, type MachineState, driftWords } from '@taxiarch/core/network/node';
import { machineSelection } from '@/data/selection';
import { CheckBox, Row, StateWord, Text } from '@/ui';

const ROW_HEIGHT = 56;

/** What a row says. */
export interface MachineLine {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly note: string;
  readonly state: MachineState;
  readonly planned: boolean;
}

/** What stands under a machine's name: what differs, or what it is. */
function noteOf({ state, drift, model, plan, heard }: MachineEntry): string {
  if (state === 'drifted') return drift.map((one) => driftWords(one).what.toLowerCase()).join(', ');
  return model?.name ?? plan?.kind ?? heard?.node?.kind ?? 'sender';
}

/** What is neither planned nor heard cannot be chosen. */
export const canChoose = ({ planned, state }: Pick<MachineLine, 'planned' | 'state'>): boolean =>
  planned || state === 'stranger';

export const lineOf = (entry: MachineEntry): MachineLine => ({
  id: entry.key,
  name: entry.name,
  address: entry.address,
  note: noteOf(entry),
  state: entry.state,
  planned: entry.plan !== undefined,
});

interface RowProps extends MachineLine {
  readonly here: boolean;
  readonly picking: boolean;
  readonly on: boolean;
}

const MachineRow = memo(function MachineRow({ id, name, address, note, state, here, picking, on }: RowProps) {
  const inside = (
    <>
      {picking && <CheckBox on={on} />}
      <View className="flex-1">
        <Text numberOfLines={1}>{name}</Text>
        <Text kind="small" numberOfLines={1}>
          {address !== '' && <Text kind="monoSmall">{address} </Text>}
          {note}
        </Text>
      </View>
      <StateWord state={state} />
    </>
  );
  if (picking)
    return (
      <Pressable
        role="checkbox"
        aria-checked={on}
        aria-label={name}
        onPress={() => machineSelection.toggle(id)}
        className={`h-14 flex-row items-center gap-3 border-b border-line px-4 ${on ? 'bg-raised' : ''}`}
      >
        {inside}
      </Pressable>
    );
  return (
    <Row href={`/wire/${id}`} chosen={here}>
      {inside}
    </Row>
  );
});

interface Props {
  lines: readonly MachineLine[];
  /** Address of the page that is open */
  here: string;
  picking: boolean;
  chosen: readonly string[];
  empty: string;
}

export const MachineRows = memo(function MachineRows({ lines, here, picking, chosen, empty }: Props) {
  const chosenSet = useMemo(() => new Set(chosen), [chosen]);
  const renderItem = useCallback(
    ({ item }: { item: MachineLine }) => (
      <div style={{ height: ROW_HEIGHT }} data-row={canChoose(item) ? item.id : undefined}>
        <MachineRow
          {...item}
          here={here === `/wire/${item.id}`}
          picking={picking && canChoose(item)}
          on={chosenSet.has(item.id)}
        />
      </div>
    ),
    [here, picking, chosenSet],
  );
  return (
    <FlatList
      data={lines}
      keyExtractor={({ id }) => id}
      initialNumToRender={14}
      windowSize={3}
      maxToRenderPerBatch={2}
      updateCellsBatchingPeriod={16}
      getItemLayout={(_, index) => ({ length: ROW_HEIGHT, offset: ROW_HEIGHT * index, index })}
      renderItem={renderItem}
      ListEmptyComponent={
        <Text kind="soft" className="px-4 py-3">
          {empty}
        </Text>
      }
    />
  );
});
