/** What can be done at the visualiser itself, where it speaks CITP: compare its patch, select a lamp in it. */
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Link } from '@taxiarch/core/show/records';
import { useAct } from '@/forms/useAct';
import { askPatch, selectThere, useExchangeSettings, usePeerOf } from '@/data/exchange';
import { useShow } from '@/data/show';
import { Button, Text } from '@/ui';

interface Given {
  readonly link: Link;
  readonly line: 'lamps' | 'arrives';
  /** Id of a lamp of the link */
  readonly lamp: string | undefined;
}

export function AtTheOtherEnd({ link, line, lamp }: Given) {
  const router = useRouter();
  const { records } = useShow();
  const { settings } = useExchangeSettings();
  const { act, trouble, busy } = useAct();
  const peer = usePeerOf(records.machine.find(({ id }) => id === link.visualiserId));
  const one = records.lamp.find(({ id }) => id === lamp);
  if (!peer) return null;
  return (
    <View className="gap-2">
      {line === 'lamps' ? (
        <Button
          label={`Compare with the patch of ${peer.name}`}
          disabled={busy}
          onPress={() => void act(async () => router.navigate(await askPatch(peer.id)))}
        />
      ) : (
        settings?.selects &&
        one && (
          <Button
            label={`Select lamp ${one.number} in ${peer.name}`}
            disabled={busy}
            onPress={() => void act(() => selectThere([one.number]))}
          />
        )
      )}
      {trouble !== '' && <Text tone="fault">{trouble}</Text>}
    </View>
  );
}
