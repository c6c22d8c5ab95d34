/** Who synchronises the streams of a universe, and how that stands. */
import { View } from 'react-native';
import { syncsOf, type StreamReport, type SyncStanding } from '@taxiarch/core/signal/stream';
import { useLive } from '@/data/live';
import { Section, StateWord, Text, clockTime, count, spell } from '@/ui';

const WORDS = { steady: 'steady', late: 'ragged', missing: 'silent' } as const;

function sentenceOf({ universe, source, state, waits }: SyncStanding, now: number): string {
  const what = universe === 0 ? 'ArtSync' : `Synchronisation on sACN universe ${universe}`;
  if (!source) return `${what} is asked for and was never heard: levels are let in as they come.`;
  const who = source.name || source.address;
  if (state === 'missing')
    return `${what}, from ${who}, is missing for ${spell(now - source.lastSeen)}${waits ? ': levels stand still until it is back' : ': levels are let in as they come'}.`;
  return `${what} comes from ${who}, ${count(source.rate1, 'packet')} in the last second, since ${clockTime(source.firstSeen)}.`;
}

export function SyncSection({ streams }: { streams: readonly StreamReport[] }) {
  const live = useLive();
  if (!live) return null;
  const standings = syncsOf(streams, live.syncs, live.universes, live.at);
  if (standings.length === 0) return null;
  const numbers = new Map(live.universes.map(({ key, show }) => [key, show]));
  return (
    <Section title="Synchronised by">
      {standings.map((one) => (
        <View
          key={`${one.universe} ${one.source?.cid ?? one.source?.address ?? ''}`}
          className="gap-1 border-b border-line pb-2"
        >
          <StateWord state={WORDS[one.state]} />
          <Text>{sentenceOf(one, live.at)}</Text>
          {one.source && (
            <Text kind="small" className="tabular-nums">
              {`${one.source.address} · ${count(one.source.missing, 'packet')} lost, ${one.source.late} late or repeated`}
            </Text>
          )}
          <Text kind="small">
            {`for ${count(one.keys.length, 'universe')}: ${one.keys
              .map((key) => numbers.get(key) ?? '?')
              .slice(0, 20)
              .join(', ')}${one.keys.length > 20 ? ' and more' : ''}`}
          </Text>
        </View>
      ))}
    </Section>
  );
}
