/** The account of each stream of a universe. */
import { View } from 'react-native';
import { startCodeName, type StreamReport } from '@taxiarch/core/signal/stream';
import { pennantOf, sendersOf } from '@taxiarch/core/network/flow';
import { useShow } from '@/data/show';
import { PennantFlag, Text, clockTime, count, spell } from '@/ui';

const said = (stream: StreamReport): string[] => [
  `${stream.rate1} packets in the last second, ${stream.rate10} a second over ten`,
  `intervals vary by ${stream.jitter} ms`,
  `${count(stream.missing, 'packet')} lost, ${stream.repeats} repeated, ${stream.late} late, of ${stream.packets}`,
  `${count(stream.slotCount, 'slot')}${stream.slotPriority ? ', with a priority for each' : ''}${stream.syncAddress ? `, synchronised on ${stream.syncAddress}` : ''}${stream.waits ? ', its last levels wait for the synchronisation packet' : ''}`,
  `first heard ${clockTime(stream.firstSeen)}, last ${clockTime(stream.lastSeen)}`,
  ...(stream.cid ? [`id ${stream.cid}`] : []),
  ...(stream.physical > 0 ? [`from its input ${stream.physical}`] : []),
  ...(stream.twin ? ['another sender uses the same component id now: receivers take the two for one'] : []),
  ...(stream.ipv6 ? [stream.address.includes(':') ? 'by IPv6' : 'by IPv4 and IPv6'] : []),
  ...(stream.levels ? [] : ['it sends no levels']),
  ...stream.startCodes.map(
    ({ code, packets, says }) =>
      `start code ${startCodeName(code)}: ${count(packets, 'packet')}${says && `, “${says}”`}`,
  ),
];

export function StreamDetails({ stream }: { stream: StreamReport }) {
  const { records } = useShow();
  const state = stream.terminated
    ? 'ended'
    : stream.lost
      ? `silent for ${spell(Date.now() - stream.lastSeen)}`
      : stream.preview
        ? 'preview only'
        : '';
  return (
    <View className={`gap-1 border-b border-line pb-2 ${stream.lost ? 'opacity-60' : ''}`}>
      <View className="flex-row items-center gap-2">
        <PennantFlag pennant={pennantOf(stream, sendersOf(records.machine))} />
        <Text kind="strong">{stream.name || stream.address}</Text>
        {state !== '' && <Text kind="small">{state}</Text>}
      </View>
      <Text kind="monoSmall">
        {stream.address}
        {stream.cid !== '' && `  priority ${stream.priority}`}
      </Text>
      {said(stream).map((line) => (
        <Text key={line} kind="small" className="tabular-nums">
          {line}
        </Text>
      ))}
    </View>
  );
}
