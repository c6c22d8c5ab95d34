/** What is wrong with whole cables, and lamps in each other's way; each can be left alone, and is then told no more. */
import { useState } from 'react';
import { View } from 'react-native';
import type { RollReply } from '@taxiarch/core/truth/roll';
import { leaveAlone, switchRdm } from '@/data/roll';
import { Button, Text, useWide } from '@/ui';
import type { LampActs } from './useLampActs';

export function Troubles({ roll: { troubles, ports }, acts }: { roll: RollReply; acts: LampActs }) {
  const [all, setAll] = useState(false);
  /** Shown without being asked for: on a phone the lamps are not to be far below. */
  const few = useWide() ? 2 : 1;
  if (troubles.length === 0) return null;
  const shown = all ? troubles : troubles.slice(0, few);
  return (
    <View role="list" aria-label="What is wrong with cables" className="gap-2 px-4 py-2">
      {shown.map(({ key, kind, says, mend, machineId, portNumber }) => (
        <View key={key} role="listitem" className="gap-1 border-l-4 border-warn pl-3">
          <Text>{says}</Text>
          <View className="flex-row items-center gap-2">
            <Text kind="small" className="flex-1">
              {mend}
            </Text>
            {kind === 'off' ? (
              <Button
                label={`Switch RDM on: port ${portNumber}`}
                short="Switch on"
                onPress={() =>
                  acts.act(async () => {
                    const port = ports.find((one) => one.machineId === machineId && one.number === portNumber);
                    if (port) await switchRdm(port.address, port.number);
                  })
                }
              />
            ) : (
              <Button label={`Leave alone: ${says}`} short="Leave it" onPress={() => void leaveAlone(key)} />
            )}
          </View>
        </View>
      ))}
      {troubles.length > few && (
        <Button label={all ? 'Fewer' : `${troubles.length - few} more`} look="bare" onPress={() => setAll(!all)} />
      )}
    </View>
  );
}
