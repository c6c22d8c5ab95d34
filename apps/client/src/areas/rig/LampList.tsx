/** All lamps, by universe and channel or by place, with search. */
import { usePathname, type Href } from 'expo-router';
import { useMemo, useState } from 'react';
import { FlatList, View } from 'react-native';
import { formatAddress } from '@taxiarch/core/address';
import { matchesWords } from '@taxiarch/core/jump';
import type { PatchedLamp } from '@taxiarch/core/patch';
import { placeFilter, useKept } from '@/data/kept';
import { useShow, type Show } from '@/data/show';
import { Choice, Field, Row, Screen, Sentence, SentenceLink, Text, count } from '@/ui';

const ORDERS = [
  { value: 'universe', label: 'By universe' },
  { value: 'place', label: 'By place' },
] as const;
type Order = (typeof ORDERS)[number]['value'];

type Item =
  | { readonly kind: 'head'; readonly title: string; readonly note: string }
  | { readonly kind: 'lamp'; readonly lamp: PatchedLamp };

function groupsOf({ records, patch }: Show, order: Order): { title: string; lamps: PatchedLamp[] }[] {
  if (order === 'universe')
    return patch.universes().map((number) => {
      const name = records.universe.find((one) => one.number === number)?.name ?? 'not in the show';
      return { title: `Universe ${number}, ${name}`, lamps: [...patch.universe(number)] };
    });
  const all = records.lamp.flatMap((lamp) => patch.lamp(lamp.id) ?? []).sort((a, b) => a.lamp.number - b.lamp.number);
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
        `${lamp.number} ${lamp.name} ${type.maker} ${type.name} ${mode.name} ${formatAddress(lamp)}`,
        query,
      ));
  return groupsOf(show, order).flatMap(({ title, lamps }) => {
    const shown = lamps.filter(fits);
    if (shown.length === 0) return [];
    return [
      { kind: 'head', title, note: count(shown.length, 'lamp') } as const,
      ...shown.map((lamp) => ({ kind: 'lamp', lamp }) as const),
    ];
  });
}

/** “420 lamps on 12 universes. No addresses collide.” */
function RigSentence({ records: { lamp }, patch, loaded }: Show) {
  if (!loaded) return <Sentence>Reading the show…</Sentence>;
  if (lamp.length === 0) return <Sentence>No lamps yet.</Sentence>;
  const findings = patch.findings();
  const overlaps = findings.filter(({ rule }) => rule === 'overlap').length;
  const past = findings.length - overlaps;
  return (
    <Sentence>
      {count(lamp.length, 'lamp')} on{' '}
      <SentenceLink href="/listen">{count(patch.universes().length, 'universe')}</SentenceLink>.
      {findings.length === 0 && ' No addresses collide.'}
      {overlaps > 0 && ` ${count(overlaps, 'overlap')}.`}
      {past > 0 && ` ${past} past channel 512.`}
    </Sentence>
  );
}

function LampRow({ patched, chosen }: { patched: PatchedLamp; chosen: boolean }) {
  const { lamp, type, mode } = patched;
  return (
    <Row href={`/rig/${lamp.id}` as Href} label={`Lamp ${lamp.number} ${lamp.name}`} chosen={chosen}>
      <Text kind="mono" className="w-12 font-medium">
        {lamp.number}
      </Text>
      <View className="flex-1">
        <Text numberOfLines={1}>{lamp.name}</Text>
        <Text kind="small" numberOfLines={1}>
          {type.maker} {type.name}, {mode.name}
        </Text>
      </View>
      <Text kind="mono">{formatAddress(lamp)}</Text>
    </Row>
  );
}

export function LampList() {
  const show = useShow();
  const here = usePathname();
  const [order, setOrder] = useState<Order>('universe');
  const [query, setQuery] = useState('');
  const place = useKept(placeFilter);
  const items = useMemo(() => itemsOf(show, order, query, place), [show, order, query, place]);
  return (
    <Screen fixed sentence={<RigSentence {...show} />}>
      <View className="gap-2 px-4 pb-2">
        <Field
          label="Search lamps"
          hideLabel
          placeholder="Search: number, name, type, 3/47"
          value={query}
          onChange={setQuery}
        />
        <Choice label="Order" options={ORDERS} value={order} onChange={setOrder} />
      </View>
      <FlatList
        data={items}
        keyExtractor={(item) => (item.kind === 'head' ? item.title : item.lamp.lamp.id)}
        initialNumToRender={16}
        renderItem={({ item }) =>
          item.kind === 'head' ? (
            <View className="flex-row items-end justify-between border-b border-line bg-surface px-4 pb-1 pt-3">
              <Text kind="label" role="heading" aria-level={2}>
                {item.title}
              </Text>
              <Text kind="small">{item.note}</Text>
            </View>
          ) : (
            <LampRow patched={item.lamp} chosen={here === `/rig/${item.lamp.lamp.id}`} />
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
    </Screen>
  );
}
