/** The WebSocket mode: all stations connected to one host. */
import { useState } from 'react';
import { View } from 'react-native';
import type { StationsReply } from '@taxiarch/core/whole/contract';
import { moveStation } from '@/data/exchange';
import { Button, Field, Fold, Notice, Text } from '@/ui';
import { useAct } from '@/forms/useAct';

export function HostSection({ stations }: { stations: StationsReply }) {
  const { act, trouble, busy } = useAct();
  const [url, setUrl] = useState('');
  const { mode, asked } = stations;
  const move = (to: string) =>
    void act(async () => {
      await moveStation(to);
    });
  return (
    <>
      {asked && asked.url !== '' && (
        <Notice state="differs">
          {asked.from} asks all stations to meet at {asked.url}.
        </Notice>
      )}
      {asked && asked.url !== '' && (
        <Button label={`Meet at ${asked.url}`} disabled={busy} onPress={() => move(asked.url)} />
      )}
      {asked && asked.group !== '' && (
        <Notice state="differs">
          {asked.from} asks all stations to go to the group {asked.group}. Change the group above to follow.
        </Notice>
      )}
      <Fold
        of="stations"
        title={
          mode === 'tcp'
            ? 'Meet at one host instead (WebSocket)'
            : `Meeting at ${stations.url}${mode === 'host' ? ', hosted here' : ''}`
        }
      >
        <View className="gap-3">
          <Text kind="small">
            Where stations cannot find each other by themselves, as across networks, all connect to one host.
          </Text>
          {mode === 'tcp' ? (
            <>
              <Field
                label="Address of the host"
                mono
                value={url}
                onChange={setUrl}
                placeholder="ws://10.0.0.20:4000/"
              />
              <View className="flex-row gap-2">
                <Button label="Join it" grow disabled={url === '' || busy} onPress={() => move(url)} />
                <Button label="Host the others here" grow disabled={busy} onPress={() => move('host')} />
              </View>
            </>
          ) : (
            <Button label="Find each other directly again" disabled={busy} onPress={() => move('')} />
          )}
          {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
        </View>
      </Fold>
    </>
  );
}
