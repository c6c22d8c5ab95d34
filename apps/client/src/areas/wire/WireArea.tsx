/** Wire: which machines are planned, which answer, and what their ports say. */
import { useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { formatPortAddress } from '@taxiarch/core/address';
import type { NodePortReport, NodeReport } from '@taxiarch/core/contract';
import type { Machine, ShowRecords, Universe } from '@taxiarch/core/show';
import { useLive } from '@/data/live';
import { useShow } from '@/data/show';
import { Screen, Sentence, StateWord, Text, count, spell, useWide, type StateName } from '@/ui';

interface Entry {
  readonly address: string;
  readonly plan: Machine | undefined;
  readonly heard: NodeReport | undefined;
  readonly state: StateName;
}

/** Planned and heard machines in one list, by address. */
function entriesOf(records: ShowRecords, nodes: readonly NodeReport[]): Entry[] {
  const planned = records.machine.map((plan): Entry => {
    const heard = nodes.find((node) => node.address === plan.address);
    return { address: plan.address, plan, heard, state: heard && !heard.gone ? 'answers' : 'missing' };
  });
  const others = nodes
    .filter((node) => !records.machine.some((plan) => plan.address === node.address))
    .map((heard): Entry => {
      const source = records.source.some((one) => one.address === heard.address);
      return {
        address: heard.address,
        plan: undefined,
        heard,
        state: heard.gone ? 'missing' : source ? 'answers' : 'stranger',
      };
    });
  return [...planned, ...others].sort((a, b) => a.address.localeCompare(b.address, 'en', { numeric: true }));
}

function wireSentence(entries: readonly Entry[], listening: boolean): string {
  if (!listening) return 'Listening…';
  const planned = entries.filter(({ plan }) => plan);
  const answering = planned.filter(({ state }) => state === 'answers').length;
  const strangers = entries.filter(({ state }) => state === 'stranger').length;
  if (entries.length === 0) return 'No node is planned, and none answers.';
  return `${answering} of ${count(planned.length, 'planned node')} answer${strangers > 0 ? `; ${count(strangers, 'stranger')} too` : ''}.`;
}

/** “1 · Art-Net 0.0.8, universe 9 · sending, merges two”; the plan’s universe where it is known. */
function PortLine({ port, universes }: { port: NodePortReport; universes: readonly Universe[] }) {
  const shows = universes.filter(({ protocol, wire }) =>
    protocol === 'artnet' ? wire === port.portAddress : port.sacn && wire === port.portAddress + 1,
  );
  const doing = [
    port.active ? (port.direction === 'out' ? 'sending' : 'receiving') : 'no signal',
    port.merging && `merges two, ${port.ltp ? 'latest wins' : 'highest wins'}`,
    port.active && port.sacn && 'fed by sACN',
  ].filter(Boolean);
  return (
    <View className="min-h-8 flex-row items-center gap-3">
      <Text kind="mono" className="w-6">
        {port.number}
      </Text>
      <Text kind="monoSmall" className="w-16">
        {formatPortAddress(port.portAddress)}
      </Text>
      <Text kind="small" numberOfLines={1} tone={port.active ? 'text' : 'soft'} className="flex-1">
        {doing.join(', ')}
        {shows.length > 0 && ` · universe ${shows.map(({ number }) => number).join(', ')}`}
      </Text>
    </View>
  );
}

function MachineCard({
  entry,
  universes,
  chosen,
  now,
}: {
  entry: Entry;
  universes: readonly Universe[];
  chosen: boolean;
  now: number;
}) {
  const { plan, heard, state, address } = entry;
  return (
    <View className={`gap-1 rounded border p-3 ${chosen ? 'border-press' : 'border-line'}`}>
      <View className="flex-row items-center gap-2">
        <Text kind="strong" className="flex-1" numberOfLines={1}>
          {plan?.name ?? heard?.shortName ?? address}
        </Text>
        <StateWord state={state} />
      </View>
      <Text kind="monoSmall">
        {address}
        {heard && `  ${heard.mac}`}
      </Text>
      <Text kind="small">
        {plan ? plan.model : (heard?.kind ?? '')}
        {heard && plan && heard.shortName !== plan.name ? `, calls itself ${heard.shortName}` : ''}
        {heard ? `, answered ${spell(now - heard.lastSeen)} ago` : ', has not answered'}
      </Text>
      {heard && heard.ports.length > 0 && (
        <View className="mt-1 border-t border-line pt-1">
          {heard.ports.map((port) => (
            <PortLine key={port.number} port={port} universes={universes} />
          ))}
        </View>
      )}
      {heard && heard.ports.length === 0 && <Text kind="small">It has no ports of its own.</Text>}
    </View>
  );
}

export function WireArea() {
  const wide = useWide();
  const live = useLive();
  const { records } = useShow();
  const { machine } = useLocalSearchParams<{ machine?: string }>();
  const entries = entriesOf(records, live?.nodes ?? []);
  return (
    <Screen sentence={<Sentence>{wireSentence(entries, live !== undefined)}</Sentence>}>
      <Text kind="small">
        {live?.interface
          ? `On ${live.interface.name}, ${live.interface.address}. Ports stand as net.sub.universe, counted from 0 as on the wire.`
          : (live?.trouble ?? '')}
      </Text>
      <View className={wide ? 'flex-row flex-wrap gap-4' : 'gap-3'}>
        {entries.map((entry) => (
          <View key={entry.address} className={wide ? 'w-[360px]' : ''}>
            <MachineCard
              entry={entry}
              universes={records.universe}
              chosen={entry.address === machine}
              now={live?.at ?? 0}
            />
          </View>
        ))}
      </View>
    </Screen>
  );
}
