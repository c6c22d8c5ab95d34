/** Who is planned to send what, and who is heard doing so. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { formatUniverses } from '@taxiarch/core/base/address';
import { readOutputTable } from '@taxiarch/core/files/format';
import { isSentBy, sendersOf, universesOf, type Sender, goesBySacn } from '@taxiarch/core/network/flow';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { useTableImport } from '@/forms/useTableImport';
import { Button, PennantFlag, Row, Screen, Sentence, Text, count } from '@/ui';

/** The priority of its highest line. */
const highest = ({ lines }: Sender) => Math.max(0, ...lines.map(({ priority }) => priority));

export function SendersPage() {
  const router = useRouter();
  const { records, loaded } = useShow();
  const live = useLive();
  const table = useTableImport('Table of outputs', readOutputTable);
  const senders = [...sendersOf(records.machine)].sort(
    (a, b) => highest(b) - highest(a) || a.name.localeCompare(b.name),
  );
  const streams = live?.universes.flatMap((one) => one.streams.filter(({ lost, own }) => !lost && !own)) ?? [];
  const planned = new Map(records.universe.map((one) => [one.number, one]));
  const heard = new Set(senders.filter((sender) => streams.some((stream) => isSentBy(stream, sender))));
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : senders.length === 0
              ? 'Nobody is planned to send anything yet.'
              : `${heard.size} of ${count(senders.length, 'planned sender')} heard.`}
        </Sentence>
      }
      acts={
        <>
          <Button
            label="Export as CSV"
            short="Export"
            onPress={() => window.location.assign('/api/export/csv/outputs')}
          />
          <Button label="Import from CSV" short="Import" onPress={table.choose} />
          <Button label="Add a sender" look="main" grow onPress={() => router.navigate('/flow/senders/new')} />
        </>
      }
    >
      {table.shown}
      <View className="-mx-4">
        {senders.map((sender) => {
          const { id, name, pennant } = sender;
          const universes = universesOf(sender);
          return (
            <Row key={id} href={`/flow/senders/${id}`}>
              <PennantFlag pennant={pennant} size={22} />
              <View className="flex-1">
                <Text numberOfLines={1}>{name}</Text>
                <Text kind="small" numberOfLines={1}>
                  {universes.length === 0 ? 'sends nothing' : `universes ${formatUniverses(universes)}`}
                  {sender.lines.some((line) => goesBySacn(line, planned)) && ` · priority ${highest(sender)}`}
                </Text>
              </View>
              <Text kind="small" tone={heard.has(sender) ? 'fine' : 'soft'}>
                {heard.has(sender) ? '● heard' : '○ not heard'}
              </Text>
            </Row>
          );
        })}
      </View>
    </Screen>
  );
}
