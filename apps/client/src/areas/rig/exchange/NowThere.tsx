/** Programs that can be compared with as they are now, without a file. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { askPatch, fetchRig, useExchange } from '@/data/exchange';
import { Button, Notice, SentenceLink, Text } from '@/ui';
import { useAct } from '@/forms/useAct';

export function NowThere() {
  const router = useRouter();
  const { data } = useExchange();
  const { act, trouble, busy } = useAct();
  const stations = data?.stations?.list.filter(({ commits }) => commits.length > 0) ?? [];
  const programs = data?.citp?.peers.filter(({ linked }) => linked) ?? [];
  const go = (begin: () => Promise<`/rig/arrivals/${string}`>) => void act(async () => router.navigate(await begin()));
  return (
    <View className="gap-2">
      <Text>
        Compare with what it has now
        {stations.length + programs.length === 0 ? ': no program that can be asked is there. ' : '. '}
        <SentenceLink href="/rig/exchange">Exchange</SentenceLink> says who is.
      </Text>
      {stations.map(({ stationId, name, commits }) => (
        <Button
          key={stationId}
          label={`The rig that ${name} offers`}
          disabled={busy}
          onPress={() => go(() => fetchRig(stationId, commits.at(-1)!.fileId))}
        />
      ))}
      {programs.map(({ id, name }) => (
        <Button
          key={id}
          label={`The patch of ${name}, by CITP`}
          disabled={busy}
          onPress={() => go(() => askPatch(id))}
        />
      ))}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
    </View>
  );
}
