/** Jump: one box for slots, lamps, machines and universes. */
import { useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { findJumps, type JumpTarget } from '@taxiarch/core/jump';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { Button } from '../Button';
import { Field } from '../Field';
import { Text } from '../Text';

function hrefOf(target: JumpTarget): Href {
  switch (target.kind) {
    case 'slot':
      return `/listen/u${target.universe}?slot=${target.channel}`;
    case 'universe':
      return `/listen/u${target.universe}`;
    case 'lamp':
      return `/rig/${target.id}`;
    case 'machine':
      return `/wire/${target.key}`;
  }
}

export function Jump({ onClose }: { onClose: () => void }) {
  const [typed, setTyped] = useState('');
  const router = useRouter();
  const { records } = useShow();
  const nodes = useLive()?.nodes ?? [];
  const targets = findJumps(
    typed,
    records,
    nodes.map(({ address, shortName }) => ({ address, name: shortName })),
  );
  const go = (target: JumpTarget) => {
    onClose();
    router.navigate(hrefOf(target));
  };
  return (
    <View role="dialog" aria-label="Jump" className="absolute inset-0 bg-ground">
      <View className="mx-auto w-full max-w-[640px] flex-1 gap-2 p-3">
        <View className="flex-row items-end gap-2">
          <View className="flex-1">
            <Field
              label="Jump to a slot, lamp, machine or universe"
              value={typed}
              onChange={setTyped}
              autoFocus
              placeholder="3/47, 101, u12, 127.0.0.31, a name"
              onSubmitEditing={() => targets[0] && go(targets[0])}
            />
          </View>
          <Button label="Close" onPress={onClose} />
        </View>
        <ScrollView keyboardShouldPersistTaps="handled">
          {targets.map((target) => (
            <Pressable
              key={target.label}
              role="button"
              onPress={() => go(target)}
              className="min-h-12 justify-center border-b border-line px-2 active:bg-raised"
            >
              <Text>{target.label}</Text>
            </Pressable>
          ))}
          {typed !== '' && targets.length === 0 && (
            <Text kind="soft">Nothing in the show or on the wire fits “{typed}”.</Text>
          )}
        </ScrollView>
      </View>
    </View>
  );
}
