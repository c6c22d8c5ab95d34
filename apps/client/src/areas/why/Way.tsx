/** How far a universe's way is known: on the wire, and at each port, in what the ports themselves say. */
import { Link } from 'expo-router';
import { View } from 'react-native';
import { wireKey } from '@taxiarch/core/base/address';
import { outletText, outletsByUniverse, type PathOutlet } from '@taxiarch/core/network/flow';
import { whyHref } from '@/data/diagnosis';
import { useLive } from '@/data/live';
import { useMachines } from '@/data/machines';
import { useShow } from '@/data/show';
import { KnownMark, Text, spell } from '@/ui';

/** The outputs that are planned to carry a universe, each with what its box says of it. */
export function useOutlets(universe: number): readonly PathOutlet[] {
  const { records } = useShow();
  const entries = useMachines();
  // While no report comes nobody knows what a box says: that is not the same as that it does not answer.
  return useLive() ? (outletsByUniverse(entries, records.universe).get(universe) ?? []) : [];
}

/** How it is known what an outlet says, and when its box said it last. */
export function OutletMark({ outlet }: { outlet: PathOutlet }) {
  const live = useLive();
  const node = useMachines().find(({ plan }) => plan?.id === outlet.machineId)?.heard?.node;
  return (
    <KnownMark
      known={outlet.known}
      of={outletText(outlet)}
      evidence={node && live ? [`Its last answer came ${spell(live.at - node.lastSeen)} ago.`] : []}
    />
  );
}

/** Of what Why? is asked at an outlet. */
export const outletSubject = ({ machineId, port }: PathOutlet) =>
  port === null
    ? ({ kind: 'machine', id: machineId, part: '' } as const)
    : ({ kind: 'port', id: machineId, part: String(port) } as const);

export function Way({ universe }: { universe: number }) {
  const { records } = useShow();
  const live = useLive();
  const outlets = useOutlets(universe);
  const planned = records.universe.find(({ number }) => number === universe);
  const report =
    planned && live?.universes.find(({ key }) => key === wireKey({ protocol: planned.protocol, number: planned.wire }));
  if (!live) return <Text kind="small">No report comes just now: nothing is known.</Text>;
  const heard = report !== undefined && report.state !== 'silent';
  const last = Math.max(0, ...(report?.streams.map(({ lastSeen }) => lastSeen) ?? []));
  return (
    <View role="list" aria-label="How far it is known">
      <View role="listitem" className="flex-row items-center gap-3">
        <View className="w-24">
          <KnownMark
            known={heard ? 'heard' : 'not known'}
            of={`universe ${universe} on the wire`}
            evidence={last > 0 ? [`The last packet came here ${spell(live.at - last)} ago.`] : []}
          />
        </View>
        <Text className="flex-1" tone={heard ? 'text' : 'fault'}>
          {report ? `${report.state} on the wire${report.because ? `: ${report.because}` : ''}` : 'nothing is heard'}
        </Text>
      </View>
      {outlets.map((outlet) => (
        <View key={outletText(outlet)} role="listitem" className="flex-row items-center gap-3">
          <View className="w-24">
            <OutletMark outlet={outlet} />
          </View>
          <Link href={whyHref(outletSubject(outlet))} asChild>
            <Text tone={outlet.heard ? 'press' : 'fault'} className="flex-1 py-1">
              {outletText(outlet)}: {outlet.says}
            </Text>
          </Link>
        </View>
      ))}
      {outlets.length === 0 && <Text kind="small">No port is planned to carry it.</Text>}
    </View>
  );
}
