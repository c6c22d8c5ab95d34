/** Taking one slot, setting it, giving it back. */
import { useState } from 'react';
import { View } from 'react-native';
import { useLive } from '@/data/live';
import { holdsHere, setLevels } from '@/data/output';
import { Button, Slider } from '@/ui';
import type { NamedUniverse } from '@/data/universes';
import { Consent } from './Consent';
import { useTaking } from './taking';

interface Props {
  universe: NamedUniverse;
  /** From 1 */
  channel: number;
  /** The level that is on the wire now */
  value: number;
}

export function TakeSlot({ universe, channel, value }: Props) {
  const taking = useTaking();
  const output = useLive()?.output;
  const [level, setLevel] = useState<number | null>(null);
  const { plan } = universe;
  if (!plan) return null;
  const address = `${plan.number}/${channel}`;
  const held = holdsHere(output, plan.number, channel);
  return (
    <View className="gap-2">
      <Consent taking={taking} />
      {held ? (
        <>
          <Slider
            label={`Level of ${address}`}
            value={level ?? value}
            max={255}
            onChange={(next) => {
              setLevel(next);
              setLevels([plan], [[{ universe: plan.number, channel }, next]]);
            }}
          />
          <Button label="Give back" look="plain" onPress={() => void taking.giveBack([address])} />
        </>
      ) : (
        <Button
          label={`Take ${address}`}
          look="main"
          onPress={() => {
            setLevel(null);
            void taking.take({ [address]: null });
          }}
        />
      )}
    </View>
  );
}
