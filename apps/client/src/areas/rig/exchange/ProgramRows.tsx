/** Programs that speak CITP: what they say of their lamps, and what is selected in them. */
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { CitpPeerReport, CitpReply } from '@taxiarch/core/whole/contract';
import { askPatch, givePatch } from '@/data/exchange';
import { Button, KnownMark, Notice, Section, StateWord, Text, clockTime, count } from '@/ui';
import { useAct } from '@/forms/useAct';
import { SelectedThere } from './SelectedThere';

/** What peers say that they are, as people say it. */
const TYPES: Readonly<Record<string, string>> = {
  LightingConsole: 'console',
  MediaServer: 'media server',
  Visualizer: 'visualiser',
};

function patchText({ lamps, whole, patchAt, differ }: CitpPeerReport): string {
  if (patchAt === 0) return 'It has not told its lamps.';
  if (!whole) return `${count(lamps, 'lamp')} told so far.`;
  const says = `At ${clockTime(patchAt)} it told ${count(lamps, 'lamp')}; `;
  return says + (differ.length === 0 ? 'all lie as here.' : `${differ.length} otherwise than here.`);
}

interface Given {
  readonly citp: CitpReply;
  readonly untold: number;
  readonly selects: boolean;
}

export function ProgramRows({ citp, untold, selects }: Given) {
  return (
    <Section title="Programs that speak CITP">
      {citp.peers.length === 0 && <Text kind="soft">No program tells of itself by CITP on this interface.</Text>}
      <View role="list" aria-label="Programs that speak CITP">
        {citp.peers.map((one) => (
          <Program key={one.id} one={one} />
        ))}
      </View>
      {selects && <SelectedThere />}
      {untold > 0 && (
        <Text kind="small">
          {count(untold, 'lamp')} of the show cannot be told by CITP: without an address, beyond universe 256, or
          numbered above 65535.
        </Text>
      )}
    </Section>
  );
}

function Program({ one }: { one: CitpPeerReport }) {
  const router = useRouter();
  const { act, trouble, busy } = useAct();
  const [given, setGiven] = useState('');
  const { id, name, type, state, address, linked, differ } = one;
  const off = !linked || busy;
  return (
    <View role="listitem" aria-label={name} className="gap-2 border-b border-line py-3">
      <View className="flex-row items-center gap-3">
        <View className="flex-1">
          <Text kind="strong">{name}</Text>
          <Text kind="small">{[TYPES[type] ?? '', state.toLowerCase(), address].filter(Boolean).join(' · ')}</Text>
        </View>
        {linked ? (
          one.whole && <StateWord state={differ.length === 0 ? 'fine' : 'differs'} />
        ) : (
          <Text kind="small">not connected</Text>
        )}
      </View>
      <Text>{patchText(one)}</Text>
      {one.patchAt > 0 && <KnownMark known="said" of={`the lamps of ${name}`} evidence={[]} />}
      {one.trouble !== '' && <Text tone="fault">{one.trouble}</Text>}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {given !== '' && <Text role="status">{given}</Text>}
      <View className="flex-row gap-2">
        <Button
          label={`Compare with the patch of ${name}`}
          short="Compare"
          look={differ.length > 0 ? 'main' : 'plain'}
          grow
          disabled={off}
          onPress={() => void act(async () => router.navigate(await askPatch(id)))}
        />
        <Button
          label={`Send our patch to ${name}`}
          short="Send ours"
          grow
          disabled={off}
          onPress={() =>
            void act(async () => {
              const { lamps } = await givePatch(id);
              setGiven(`Sent ${count(lamps, 'lamp')}. What it does with them is its own matter; compare to see.`);
            })
          }
        />
      </View>
    </View>
  );
}
