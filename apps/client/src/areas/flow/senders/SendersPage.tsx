/** Who is planned to send what, and who is heard doing so. */
import { useRouter, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatUniverses } from '@taxiarch/core/address';
import { readOutputTable } from '@taxiarch/core/format';
import { isSentBy, universesOf } from '@taxiarch/core/flow';
import type { Source } from '@taxiarch/core/show';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { Button, PennantFlag, Row, Screen, Sentence, Text, count, useTableIn } from '@/ui';

/** The priority of its highest line. */
const highest = ({ ranges }: Source) => Math.max(0, ...ranges.map(({ priority }) => priority));

export function SendersPage() {
  const router = useRouter();
  const { records, loaded } = useShow();
  const live = useLive();
  const table = useTableIn('Table of outputs', readOutputTable);
  const sources = [...records.source].sort((a, b) => highest(b) - highest(a) || a.name.localeCompare(b.name));
  const streams = live?.universes.flatMap((one) => one.streams.filter(({ lost, own }) => !lost && !own)) ?? [];
  const heard = new Set(sources.filter((source) => streams.some((stream) => isSentBy(stream, source))));
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : sources.length === 0
              ? 'Nobody is planned to send anything yet.'
              : `${heard.size} of ${count(sources.length, 'planned sender')} heard.`}
        </Sentence>
      }
      acts={
        <>
          <Button label="CSV out" onPress={() => window.location.assign('/api/export/csv/outputs')} />
          <Button label="CSV in" onPress={table.choose} />
          <Button label="Add a sender" look="main" grow onPress={() => router.navigate('/flow/senders/new' as Href)} />
        </>
      }
    >
      {table.shown}
      <View className="-mx-4">
        {sources.map((source) => {
          const { id, name, pennant } = source;
          const universes = universesOf(source);
          return (
            <Row key={id} href={`/flow/senders/${id}` as Href} label={name}>
              <PennantFlag pennant={pennant} size={22} />
              <View className="flex-1">
                <Text numberOfLines={1}>{name}</Text>
                <Text kind="small" numberOfLines={1}>
                  {universes.length === 0 ? 'sends nothing' : `universes ${formatUniverses(universes)}`} · priority{' '}
                  {highest(source)}
                </Text>
              </View>
              <Text kind="small" tone={heard.has(source) ? 'fine' : 'soft'}>
                {heard.has(source) ? '● heard' : '○ not heard'}
              </Text>
            </Row>
          );
        })}
      </View>
    </Screen>
  );
}
