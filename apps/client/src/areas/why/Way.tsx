/** How far a universe's way is known: on the wire, and at each port, in what the ports themselves say. */
import { Link } from 'expo-router';
import { View } from 'react-native';
import { wireKey } from '@taxiarch/core/address';
import { outletText, outletsByUniverse, type PathOutlet } from '@taxiarch/core/flow';
import { whyHref } from '@/data/diagnosis';
import { useLive } from '@/data/live';
import { useMachines } from '@/data/machines';
import { useShow } from '@/data/show';
import { KnownMark, Text } from '@/ui';

/** The outputs that are planned to carry a universe, each with what its box says of it. */
export function useOutlets(universe: number): readonly PathOutlet[] {
  const { records } = useShow();
  return outletsByUniverse(useMachines(), records.universe).get(universe) ?? [];
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
  const heard = report !== undefined && report.state !== 'silent';
  return (
    <View role="list" aria-label="How far it is known">
      <View role="listitem" className="flex-row items-center gap-3">
        <View className="w-24">
          <KnownMark known={heard ? 'heard' : 'not known'} of={`universe ${universe} on the wire`} />
        </View>
        <Text className="flex-1" tone={heard ? 'text' : 'fault'}>
          {report ? `${report.state} on the wire${report.because ? `: ${report.because}` : ''}` : 'nothing is heard'}
        </Text>
      </View>
      {outlets.map((outlet) => (
        <View key={outletText(outlet)} role="listitem" className="flex-row items-center gap-3">
          <View className="w-24">
            <KnownMark known={outlet.known} of={outletText(outlet)} />
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
