/** Jump: one box for slots, lamps, machines and universes. */
import { useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { findJumps, type JumpTarget } from '@taxiarch/core/network/jump';
import type { Subject } from '@taxiarch/core/show/records';
import { whyHref } from '@/data/diagnosis';
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

/** Of what Why? is asked there; a machine that is only heard is asked about by its address. */
function subjectOf(target: JumpTarget): Subject {
  switch (target.kind) {
    case 'slot':
      return { kind: 'slot', id: String(target.universe), part: String(target.channel) };
    case 'universe':
      return { kind: 'universe', id: String(target.universe), part: '' };
    case 'lamp':
      return { kind: 'lamp', id: target.id, part: '' };
    case 'machine':
      return { kind: 'machine', id: target.key, part: '' };
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
  const go = (href: Href) => {
    onClose();
    router.navigate(href);
  };
  return (
    <View role="dialog" aria-modal aria-label="Jump" className="absolute inset-0 bg-ground">
      <View className="mx-auto w-full max-w-[640px] flex-1 gap-2 p-3">
        <View className="flex-row items-end gap-2">
          <View className="flex-1">
            <Field
              label="Jump to a slot, lamp, machine or universe"
              value={typed}
              onChange={setTyped}
              autoFocus
              placeholder="3/47, 101, u12, 127.0.0.31, a name"
              onSubmitEditing={() => targets[0] && go(hrefOf(targets[0]))}
            />
          </View>
          <Button label="Close" onPress={onClose} />
        </View>
        <ScrollView keyboardShouldPersistTaps="handled">
          {targets.map((target) => (
            <View key={target.label} className="flex-row items-center gap-2 border-b border-line">
              <Pressable
                role="button"
                onPress={() => go(hrefOf(target))}
                className="min-h-12 flex-1 justify-center px-2 active:bg-raised"
              >
                <Text>{target.label}</Text>
              </Pressable>
              <Button
                label={`Why? ${target.label}`}
                short="Why?"
                look="bare"
                onPress={() => go(whyHref(subjectOf(target)))}
              />
            </View>
          ))}
          {typed !== '' && targets.length === 0 && (
            <Text kind="soft">Nothing in the show or on the wire fits “{typed}”.</Text>
          )}
        </ScrollView>
      </View>
    </View>
  );
}
