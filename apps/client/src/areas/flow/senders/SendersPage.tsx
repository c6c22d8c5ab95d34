/** Who is planned to send what, and who is heard doing so. */
import { useRouter, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatUniverses } from '@taxiarch/core/flow';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { Button, PennantFlag, Row, Screen, Sentence, Text, count } from '@/ui';

export function SendersPage() {
  const router = useRouter();
  const { records, loaded } = useShow();
  const live = useLive();
  const sources = [...records.source].sort((a, b) => b.priority - a.priority || a.name.localeCompare(b.name));
  const heard = new Set(
    live?.universes.flatMap(({ streams }) =>
      streams.filter(({ lost, own }) => !lost && !own).flatMap(({ name, address }) => [name, address]),
    ),
  );
  const isHeard = (name: string, address: string) => heard.has(name) || (address !== '' && heard.has(address));
  const speaking = sources.filter(({ name, address }) => isHeard(name, address)).length;
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : sources.length === 0
              ? 'Nobody is planned to send anything yet.'
              : `${speaking} of ${count(sources.length, 'planned sender')} heard.`}
        </Sentence>
      }
      acts={
        <Button label="Add a sender" look="main" grow onPress={() => router.navigate('/flow/senders/new' as Href)} />
      }
    >
      <View className="-mx-4">
        {sources.map(({ id, name, address, universes, priority, pennant }) => (
          <Row key={id} href={`/flow/senders/${id}` as Href} label={name}>
            <PennantFlag pennant={pennant} size={22} />
            <View className="flex-1">
              <Text numberOfLines={1}>{name}</Text>
              <Text kind="small" numberOfLines={1}>
                {universes.length === 0 ? 'sends nothing' : `universes ${formatUniverses(universes)}`} · priority{' '}
                {priority}
              </Text>
            </View>
            <Text kind="small" tone={isHeard(name, address) ? 'fine' : 'soft'}>
              {isHeard(name, address) ? '● heard' : '○ not heard'}
            </Text>
          </Row>
        ))}
      </View>
    </Screen>
  );
}
