/** What a lamp says of itself, as the last roll call heard it; from here to all that it tells, and to asking its port. */
import { Link } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { callRoll, useRoll } from '@/data/roll';
import { Button, Section, StateWord, Text, spell } from '@/ui';

export function Answers({ lampId, uid }: { lampId: string; uid: string }) {
  const roll = useRoll();
  const [trouble, setTrouble] = useState('');
  const row = roll?.rows.find((one) => one.lampId === lampId);
  if (!roll || !row) return null;
  const { seen, state, says } = row;
  const ports = roll.ports.filter(({ machineId, number }) => machineId === row.machineId && number === row.portNumber);
  const ask = () => {
    setTrouble('');
    callRoll(ports.length > 0 ? ports : undefined).catch((error: Error) => setTrouble(error.message));
  };
  return (
    <Section title="What it says of itself">
      <View className="flex-row items-center gap-3">
        <StateWord state={state} />
        <Text className="flex-1">{says}</Text>
      </View>
      {seen && (
        <Text kind="small">
          {[...seen.sensors.map(({ text }) => text), seen.hours === null ? '' : `${seen.hours} h`]
            .filter(Boolean)
            .join(', ')}
          , said {spell(Date.now() - seen.at)} ago.
        </Text>
      )}
      {uid !== '' && <Text kind="small">UID {uid}</Text>}
      {trouble !== '' && <Text tone="fault">{trouble}</Text>}
      <View className="flex-row items-center gap-4">
        <Button label="Ask its port" disabled={roll.progress.running} onPress={ask} />
        {seen && (
          <Link href={`/prove/roll/${encodeURIComponent(seen.uid)}`}>
            <Text tone="press">All that it tells, and its settings</Text>
          </Link>
        )}
      </View>
    </Section>
  );
}
