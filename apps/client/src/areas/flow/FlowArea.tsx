/** Flow: each universe from who sends it to the node ports that it goes to, planned and heard in one row. */
import { Link, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatWire, wireKey } from '@taxiarch/core/address';
import type { LiveReport, NodeReport, UniverseReport } from '@taxiarch/core/contract';
import { pennantOf, sendersByUniverse } from '@taxiarch/core/flow';
import type { Machine, Source, Universe } from '@taxiarch/core/show';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { PennantFlag, Screen, Sentence, StateWord, Text, count, useWide } from '@/ui';

interface Sender {
  readonly name: string;
  readonly source: Source | undefined;
  readonly heard: boolean;
  readonly own: boolean;
  readonly address: string;
}

/** Planned senders, then those heard that are not planned. */
function sendersOf(planned: readonly Source[], report: UniverseReport | undefined): Sender[] {
  const live = report?.streams.filter((stream) => !stream.lost) ?? [];
  const is = (source: Source, { name, address }: { name: string; address: string }) =>
    source.name === name || source.address === address;
  return [
    ...planned.map((source) => ({
      name: source.name,
      source,
      own: false,
      address: source.address,
      heard: live.some((stream) => !stream.own && is(source, stream)),
    })),
    ...live
      .filter((stream) => stream.own || !planned.some((source) => is(source, stream)))
      .map(({ name, address, own }) => ({ name: name || address, source: undefined, own, address, heard: true })),
  ];
}

interface Outlet {
  readonly label: string;
  readonly heard: boolean;
  readonly planned: boolean;
}

/** Ports planned for a universe, and those of machines heard that carry it by Art-Net or are fed by it. */
function outletsOf(universe: Universe, machines: readonly Machine[], nodes: readonly NodeReport[]): Outlet[] {
  return machines.flatMap((machine) => {
    const node = nodes.find(({ address, gone }) => address === machine.address && !gone);
    return machine.ports
      .filter((port) => port.direction === 'out' && port.universe === universe.number)
      .map((port) => ({
        label: `${machine.name}, port ${port.number}`,
        planned: true,
        heard: node?.ports[port.number - 1]?.active ?? false,
      }));
  });
}

function Outlets({ outlets }: { outlets: readonly Outlet[] }) {
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
  senders: readonly Sender[];
  outlets: readonly Outlet[];
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
  const senders = sendersByUniverse(records.source);
  const universes = [...records.universe].sort((a, b) => a.number - b.number);
  const paths = universes.map((universe) => {
    const report = live?.universes.find(
      (one) => one.key === wireKey({ protocol: universe.protocol, number: universe.wire }),
    );
    return {
      universe,
      senders: sendersOf(senders.get(universe.number) ?? [], report),
      outlets: outletsOf(universe, records.machine, live?.nodes ?? []),
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
        </Sentence>
      }
    >
      <View>
        {paths.map((path) => (
          <Path key={path.universe.id} live={live} {...path} />
        ))}
      </View>
    </Screen>
  );
}
