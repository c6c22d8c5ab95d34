/** Every universe, planned or heard, in one list with how it stands. */
import { useGlobalSearchParams, usePathname, useRouter } from 'expo-router';
import { Fragment, useEffect } from 'react';
import { FlatList, View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import type { StreamState, UniverseReport } from '@taxiarch/core/signal/stream';
import { pennantOf, sendersOf } from '@taxiarch/core/network/flow';
import { useLive } from '@/data/live';
import { useListChoice } from '@/data/preferences';
import { useShow } from '@/data/show';
import { Button, PennantFlag, Row, Screen, Sentence, SentenceLink, StateWord, Text, count } from '@/ui';
import { tokenOf } from '@/data/universes';

const UNEASY: readonly StreamState[] = ['contested', 'ragged', 'silent', 'stray'];

const hrefOf = (state: StreamState | 'all') => `/listen?state=${state}` as const;

/** “12 of 13 universes steady. 1 silent.” Each number leads to those that it counts. */
function StandingSentence({ live }: { live: LiveReport | undefined }) {
  if (!live) return <Sentence>Listening…</Sentence>;
  if (live.universes.length === 0) return <Sentence>Nothing is planned, and nothing is heard.</Sentence>;
  const planned = live.universes.filter(({ show }) => show !== null);
  const steady = planned.filter(({ state }) => state === 'steady').length;
  const uneasy = UNEASY.map((state) => [live.universes.filter((one) => one.state === state).length, state] as const);
  const rest = uneasy.filter(([number]) => number > 0);
  return (
    <Sentence>
      <SentenceLink href={hrefOf('steady')}>{steady}</SentenceLink> of{' '}
      <SentenceLink href={hrefOf('all')}>{count(planned.length, 'universe')}</SentenceLink> steady on the wire.
      {rest.map(([number, state], i) => (
        <Fragment key={state}>
          {i === 0 ? ' ' : ', '}
          <SentenceLink href={hrefOf(state)}>
            {number} {state}
          </SentenceLink>
        </Fragment>
      ))}
      {rest.length > 0 && '.'}
    </Sentence>
  );
}

function UniverseRow({ universe, chosen }: { universe: UniverseReport; chosen: boolean }) {
  const { records } = useShow();
  const heard = universe.streams.filter((stream) => !stream.lost);
  const name = universe.show === null ? formatWire(universe) : `${universe.show} ${universe.name}`;
  return (
    <Row href={`/listen/${tokenOf(universe)}`} chosen={chosen}>
      <View className="flex-1">
        <Text kind="strong" numberOfLines={1}>
          {name}
        </Text>
        <Text kind="small" numberOfLines={1} className="tabular-nums">
          {formatWire(universe)}
          {heard.length > 0 && ` · ${heard.map(({ rate1 }) => rate1).join(' + ')}/s`}
          {universe.because !== '' && ` · ${universe.because}`}
        </Text>
      </View>
      <View className="items-end gap-1">
        <StateWord state={universe.state} />
        <View className="flex-row gap-1">
          {heard.map((stream) => (
            <PennantFlag key={stream.mark} pennant={pennantOf(stream, sendersOf(records.machine))} size={16} />
          ))}
        </View>
      </View>
    </Row>
  );
}

export function UniverseList() {
  const router = useRouter();
  const live = useLive();
  const here = usePathname();
  const { state: asked } = useGlobalSearchParams<{ state?: string }>();
  const [state, setState] = useListChoice('universes state', 'all');
  // The address asks for a state; the list keeps to it while its universes are looked at.
  useEffect(() => {
    if (here === '/listen' && asked !== undefined) setState(asked);
  });
  const shown = live?.universes.filter((one) => state === 'all' || one.state === state) ?? [];
  return (
    <Screen
      fixed
      sentence={<StandingSentence live={live} />}
      acts={
        <>
          {state !== 'all' && <Button label="Show all" grow onPress={() => router.navigate('/listen?state=all')} />}
          <Button label="Add universes" grow onPress={() => router.navigate('/rig/universes/add')} />
        </>
      }
    >
      <FlatList
        data={shown}
        keyExtractor={({ key }) => String(key)}
        renderItem={({ item }) => <UniverseRow universe={item} chosen={here === `/listen/${tokenOf(item)}`} />}
        ListEmptyComponent={
          <Text kind="soft" className="px-4 py-3">
            {state !== 'all' && `No universe is ${state} now. `}Universes appear here as soon as they are planned or
            heard. If a console sends and nothing comes, look at which interface is in use: tap the show’s name above.
          </Text>
        }
      />
    </Screen>
  );
}
