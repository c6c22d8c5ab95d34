/** Flow: each universe from who sends it to the node ports that it goes to, planned and heard in one row. */
import { Link, useRouter, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatWire, wireKey } from '@taxiarch/core/address';
import type { LiveReport } from '@taxiarch/core/contract';
import {
  outletsByUniverse,
  pathSenders,
  pennantOf,
  sendersByUniverse,
  type PathOutlet,
  type PathSender,
} from '@taxiarch/core/flow';
import type { Universe } from '@taxiarch/core/show';
import { useLive } from '@/data/live';
import { useMachines } from '@/data/machines';
import { useNetworkFindings, useShow } from '@/data/show';
import { Button, PennantFlag, Screen, Sentence, SentenceLink, StateWord, Text, count, useWide } from '@/ui';

function Outlets({ outlets }: { outlets: readonly PathOutlet[] }) {
  if (outlets.length === 0) return <Text kind="small">goes to no planned port</Text>;
  return outlets.map(({ label, heard }) => (
    <Text key={label} kind="small" tone={heard ? 'text' : 'soft'}>
      {heard ? '→ ' : '⇢ '}
      {label}
      {heard ? '' : ', no signal there'}
    </Text>
  ));
}

function Path({
  universe,
  live,
  senders,
  outlets,
}: {
  universe: Universe;
  live: LiveReport | undefined;
  senders: readonly PathSender[];
  outlets: readonly PathOutlet[];
}) {
  const wide = useWide();
  const { records } = useShow();
  const report = live?.universes.find(
    (one) => one.key === wireKey({ protocol: universe.protocol, number: universe.wire }),
  );
  return (
    <View className={`border-b border-line py-3 ${wide ? 'flex-row items-center gap-6' : 'gap-1'}`}>
      <View className={wide ? 'w-56 gap-1' : 'flex-row flex-wrap gap-3'}>
        {senders.length === 0 && <Text kind="small">nobody is planned to send it</Text>}
        {senders.map(({ name, address, own, heard }) => (
          <View key={`${name} ${own}`} className={`flex-row items-center gap-2 ${heard ? '' : 'opacity-60'}`}>
            <PennantFlag pennant={pennantOf({ name, address, own }, records.source)} size={18} />
            <Text kind="small" tone={heard ? 'text' : 'soft'}>
              {name}
              {heard ? '' : ', not heard'}
            </Text>
          </View>
        ))}
      </View>
      <View className={wide ? 'flex-1' : ''}>
        <View className="flex-row items-center gap-2">
          <Link href={`/listen/u${universe.number}` as Href} asChild>
            <Text kind="strong" tone="press" className="flex-1">
              {universe.number} {universe.name}
            </Text>
          </Link>
          {report && <StateWord state={report.state} />}
        </View>
        <Text kind="monoSmall">{formatWire({ protocol: universe.protocol, number: universe.wire })}</Text>
      </View>
      <View className={wide ? 'w-80' : ''}>
        <Outlets outlets={outlets} />
      </View>
    </View>
  );
}

export function FlowArea() {
  const live = useLive();
  const { records } = useShow();
  const router = useRouter();
  const findings = useNetworkFindings();
  const senders = sendersByUniverse(records.source);
  const outlets = outletsByUniverse(useMachines());
  const universes = [...records.universe].sort((a, b) => a.number - b.number);
  const paths = universes.map((universe) => {
    const report = live?.universes.find(
      (one) => one.key === wireKey({ protocol: universe.protocol, number: universe.wire }),
    );
    return {
      universe,
      senders: pathSenders(senders.get(universe.number) ?? [], report),
      outlets: outlets.get(universe.number) ?? [],
    };
  });
  const through = paths.filter(
    (path) => path.senders.some(({ heard }) => heard) && path.outlets.some(({ heard }) => heard),
  ).length;
  return (
    <Screen
      sentence={
        <Sentence>
          {universes.length === 0
            ? 'No universes are planned yet.'
            : `${through} of ${count(universes.length, 'universe')} reach a port.`}
          {findings.length > 0 && ' '}
          {findings.length > 0 && (
            <SentenceLink href={'/wire/findings' as Href}>{`${count(findings.length, 'finding')}.`}</SentenceLink>
          )}
        </Sentence>
      }
      acts={<Button label="Senders" grow onPress={() => router.navigate('/flow/senders' as Href)} />}
    >
      <View>
        {paths.map((path) => (
          <Path key={path.universe.id} live={live} {...path} />
        ))}
      </View>
    </Screen>
  );
}
