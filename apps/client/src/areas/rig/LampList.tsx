/** All lamps, by universe and channel or by place, with search. */
import { usePathname, useRouter } from 'expo-router';
import { Fragment, memo, useMemo } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { formatAddress } from '@taxiarch/core/base/address';
import { matchesWords } from '@taxiarch/core/network/jump';
import type { PatchedLamp } from '@taxiarch/core/rig/patch';
import { flowOf, viewOf } from '@taxiarch/core/truth/check';
import type { ShowRecords, Tag } from '@taxiarch/core/show/records';
import { useSelectedThere } from '@/data/exchange';
import { rigSelection, useSelection } from '@/data/selection';
import { placeFilter, useListChoice, usePreference } from '@/data/preferences';
import { useFindings, useShow, type Show } from '@/data/show';
import {
  Button,
  CheckBox,
  Choice,
  Field,
  ListKeys,
  Row,
  Screen,
  Sentence,
  SentenceLink,
  Text,
  count,
  useWide,
} from '@/ui';
import { SelectedThere } from './exchange/SelectedThere';
import { RigTools } from './RigTools';

const ORDERS = [
  { value: 'universe', label: 'By universe' },
  { value: 'place', label: 'By place' },
] as const;
type Order = (typeof ORDERS)[number]['value'];

type Item =
  | { readonly kind: 'head'; readonly title: string; readonly note: string }
  | { readonly kind: 'lamp'; readonly under: string; readonly lamp: PatchedLamp };

/** Heads and lamps are equally high, so that a long list knows where each is. */
const ROW_HEIGHT = 56;

function groupsOf({ records, patch }: Show, order: Order): { title: string; lamps: PatchedLamp[] }[] {
  const all = [...patch.all()].sort((a, b) => a.lamp.number - b.lamp.number);
  if (order === 'universe') {
    const groups = patch.universes().map((number) => {
      const name = records.universe.find((one) => one.number === number)?.name ?? 'not in the show';
      const lamps = [...new Set(patch.universe(number).map(({ patched }) => patched))];
      return { title: name === '' ? `Universe ${number}` : `Universe ${number}, ${name}`, lamps };
    });
    const nowhere = all.filter(({ spans }) => spans.length === 0);
    const [unknown, none] = [true, false].map((is) => nowhere.filter(({ type }) => type.unknown === is));
    return [{ title: 'Without an address', lamps: none! }, { title: 'Of unknown types', lamps: unknown! }, ...groups];
  }
  const places: readonly { id: string | null; name: string }[] = [...records.place].sort((a, b) => a.order - b.order);
  return [...places, { id: null, name: 'Without a place' }].map(({ id, name }) => ({
    title: name,
    lamps: all.filter(({ lamp }) => lamp.placeId === id),
  }));
}

function itemsOf(show: Show, order: Order, query: string, place: string): Item[] {
  const fits = ({ lamp, type, mode }: PatchedLamp) =>
    (place === '' || lamp.placeId === place) &&
    (query === '' ||
      matchesWords(
        `${lamp.number} ${lamp.name} ${type.maker} ${type.name} ${mode.name} ${formatAddress(lamp)} ${lamp.groups.join(' ')} ${lamp.tag} ${lamp.written} ${lamp.unit} ${lamp.position} ${lamp.class} ${lamp.function} ${lamp.gel} ${lamp.circuit} ${lamp.notes}`,
        query,
      ));
  return groupsOf(show, order).flatMap(({ title, lamps }) => {
    const shown = lamps.filter(fits);
    if (shown.length === 0) return [];
    return [
      { kind: 'head', title, note: count(shown.length, 'lamp') } as const,
      ...shown.map((lamp) => ({ kind: 'lamp', under: title, lamp }) as const),
    ];
  });
}

/** “420 lamps and 156 pixels on 13 universes. No addresses collide.” */
function RigSentence({ records, patch, loaded }: Show) {
  const findings = useFindings();
  const open = useMemo(() => openEnds(records), [records]);
  const { lamp, run } = records;
  if (!loaded) return <Sentence>Reading the show…</Sentence>;
  const pixels = run.reduce((sum, one) => sum + one.count, 0);
  if (lamp.length + run.length === 0) return <Sentence>No lamps yet. Add some, or import a file.</Sentence>;
  return (
    <Sentence>
      {count(lamp.length, 'lamp')}
      {pixels > 0 && ` and ${count(pixels, 'pixel')}`} on{' '}
      <SentenceLink href="/rig/universes">{count(patch.universes().length, 'universe')}</SentenceLink>.{' '}
      {findings.length === 0 ? (
        'No addresses collide.'
      ) : (
        <SentenceLink href="/rig/findings">{`${count(findings.length, 'fault')} to mend.`}</SentenceLink>
      )}
      {open.map(({ universe, says }) => (
        <Fragment key={says}>
          {' '}
          <SentenceLink href={`/rig/universes/${universe}?view=way`}>{says}</SentenceLink>
        </Fragment>
      ))}
    </Sentence>
  );
}

/** What the universes with lamps still lack, each with the first of those that lack it. */
function openEnds(records: ShowRecords): { universe: number; says: string }[] {
  const { load, senders, inputs, routed, carriers } = flowOf(viewOf(records));
  const planned = new Set(records.universe.map(({ number }) => number));
  const used = [...load.keys()].filter((number) => planned.has(number)).sort((a, b) => a - b);
  const notSent = used.filter((number) => !senders.has(number) && !inputs.has(number) && !routed.has(number));
  const notCarried = used.filter((number) => !carriers.has(number));
  const told = (numbers: readonly number[], one: string, many: string) =>
    numbers[0] === undefined
      ? []
      : [{ universe: numbers[0], says: `${count(numbers.length, 'universe')} ${numbers.length === 1 ? one : many}.` }];
  return [
    ...told(notSent, 'is sent by nobody', 'are sent by nobody'),
    ...told(notCarried, 'leaves nowhere', 'leave nowhere'),
  ];
}

const TAG_COLOURS: Readonly<Record<Tag, string>> = {
  '': 'transparent',
  red: '#B4503C',
  orange: '#C9822E',
  yellow: '#C4B03C',
  green: '#5E8F4E',
  teal: '#3F8E8A',
  violet: '#8C6BA8',
  grey: '#8A8478',
};

const LampRow = memo(function LampRow({
  patched,
  here,
  picking,
  on,
  there,
}: {
  patched: PatchedLamp;
  here: boolean;
  picking: boolean;
  on: boolean;
  /** Programs in which it is selected */
  there: string;
}) {
  const { lamp, type, mode, run } = patched;
  const label = `${run ? 'Run' : 'Lamp'} ${lamp.number} ${lamp.name}`;
  const inside = (
    <>
      {picking && <CheckBox on={on} />}
      <Text kind="mono" className="w-12 font-medium">
        {lamp.number}
      </Text>
      {lamp.tag !== '' && (
        <View
          aria-label={`tagged ${lamp.tag}`}
          style={{ width: 6, height: 28, borderRadius: 3, backgroundColor: TAG_COLOURS[lamp.tag] }}
        />
      )}
      <View className="flex-1">
        <Text numberOfLines={1}>{lamp.name}</Text>
        <Text kind="small" numberOfLines={1}>
          {run ? `${mode.name} pixels` : `${type.maker} ${type.name}, ${mode.name}`}
          {lamp.twin !== null && ' · twin'}
          {there !== '' && ` · selected in ${there}`}
        </Text>
      </View>
      <Text kind="mono">{patched.spans[0] ? formatAddress(patched.spans[0]) : '–'}</Text>
    </>
  );
  if (!picking || run)
    return (
      <Row href={`/rig/${run ? 'pixels/' : ''}${lamp.id}`} chosen={here}>
        {inside}
      </Row>
    );
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      onPress={() => rigSelection.toggle(lamp.id)}
      className={`min-h-14 flex-row items-center gap-3 border-b border-line px-4 py-1 ${on ? 'bg-raised' : ''}`}
    >
      {inside}
    </Pressable>
  );
});

/** By lamp number, the programs in which it is selected. */
function useThere(): ReadonlyMap<number, string> {
  const programs = useSelectedThere();
  return useMemo(() => {
    const by = new Map<number, string>();
    for (const { name, selected } of programs)
      for (const number of selected) by.set(number, by.has(number) ? `${by.get(number)}, ${name}` : name);
    return by;
  }, [programs]);
}

export function LampList() {
  const show = useShow();
  const router = useRouter();
  const here = usePathname();
  const wide = useWide();
  const [order, setOrder] = useListChoice<Order>('lamps order', 'universe');
  const [query, setQuery] = useListChoice('lamps search', '');
  const [picking, setPicking] = useListChoice<'yes' | ''>('lamps choosing', '');
  const chosen = useSelection(rigSelection);
  const chosenSet = useMemo(() => new Set(chosen), [chosen]);
  const there = useThere();
  const place = usePreference(placeFilter);
  const items = useMemo(() => itemsOf(show, order, query, place), [show, order, query, place]);
  const shown = () => items.flatMap((item) => (item.kind === 'lamp' && !item.lamp.run ? item.lamp.lamp.id : []));
  const endPicking = () => {
    setPicking('');
    rigSelection.set([]);
  };
  return (
    <Screen
      fixed
      sentence={<RigSentence {...show} />}
      acts={
        picking ? (
          <>
            <Button label="Done" onPress={endPicking} />
            <Button label="All" onPress={() => rigSelection.set([...chosen, ...shown()])} />
            <Button
              label={`Change ${chosen.length}`}
              look="main"
              grow
              disabled={chosen.length === 0}
              onPress={() => router.navigate('/rig/change')}
            />
          </>
        ) : (
          <>
            <Button label="Choose lamps" grow onPress={() => setPicking('yes')} />
            <Button label="Add lamps" look="main" grow onPress={() => router.navigate('/rig/add')} />
          </>
        )
      }
    >
      <View className="gap-2 px-4 pb-2">
        {!wide && <RigTools />}
        <Field
          label="Search lamps"
          hideLabel
          placeholder="Search: number, name, type, group, 3/47"
          value={query}
          onChange={setQuery}
        />
        <Choice label="Order" options={ORDERS} value={order} onChange={setOrder} />
        <SelectedThere />
      </View>
      <ListKeys
        ids={shown}
        chosen={chosen}
        onChoose={(ids) => rigSelection.set(ids)}
        onBegin={() => setPicking('yes')}
        onEnd={endPicking}
      >
        <FlatList
          data={items}
          keyExtractor={(item) => (item.kind === 'head' ? item.title : `${item.under} ${item.lamp.lamp.id}`)}
          initialNumToRender={16}
          windowSize={5}
          maxToRenderPerBatch={5}
          updateCellsBatchingPeriod={16}
          getItemLayout={(_, index) => ({ length: ROW_HEIGHT, offset: ROW_HEIGHT * index, index })}
          renderItem={({ item }) =>
            item.kind === 'head' ? (
              <View className="h-14 flex-row items-end justify-between border-b border-line px-4 pb-1">
                <Text kind="label" role="heading" aria-level={2} className="flex-1" numberOfLines={1}>
                  {item.title}
                </Text>
                <Text kind="small">{item.note}</Text>
              </View>
            ) : (
              <div
                style={{ height: ROW_HEIGHT }}
                data-row={item.lamp.run ? undefined : item.lamp.lamp.id}
                draggable={!item.lamp.run}
                onDragStart={(event) => event.dataTransfer.setData('text/plain', item.lamp.lamp.id)}
              >
                <LampRow
                  patched={item.lamp}
                  here={here.endsWith(`/${item.lamp.lamp.id}`)}
                  picking={picking === 'yes'}
                  on={chosenSet.has(item.lamp.lamp.id)}
                  there={there.get(item.lamp.lamp.number) ?? ''}
                />
              </div>
            )
          }
          ListEmptyComponent={
            <Text kind="soft" className="px-4 py-3">
              {query || place
                ? `No lamp fits ${query ? `“${query}”` : 'here'}${place ? ', in this place' : ''}.`
                : 'The lamps of the show will stand here, with their addresses.'}
            </Text>
          }
        />
      </ListKeys>
    </Screen>
  );
}
