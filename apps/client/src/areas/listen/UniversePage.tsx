/** One universe: how it stands, who sends it, and its slots alive. */
import { sendersOf } from '@taxiarch/core/network/flow';
import { Link, useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { formatWireFully, formatWireToken, fromWireKey, wireKey } from '@taxiarch/core/base/address';
import { useLive } from '@/data/live';
import { outletSubject, useOutlets } from '@/areas/why/Way';
import { outletText } from '@taxiarch/core/network/flow';
import { whyHref } from '@/data/diagnosis';
import { useShow } from '@/data/show';
import { Missing, Choice, Section, Sentence, StateWord, Text, useWide } from '@/ui';
import { RateChart } from './RateChart';
import { SlotField } from './SlotField';
import { SlotSheet } from './SlotSheet';
import { StreamDetails } from './StreamDetails';
import { SyncSection } from './SyncSection';
import { findUniverse, reportOf, usePennants, type NamedUniverse } from '@/data/universes';
import { UNITS, type Unit } from './units';

type Shown = 'bands' | 'plain' | 'streams';
const VIEWS = [
  { value: 'bands', label: 'By lamp' },
  { value: 'plain', label: 'All 512' },
  { value: 'streams', label: 'Streams' },
] as const;

/** Ports that say otherwise than planned: there the way breaks, whatever the wire says. */
function BrokenOutlets({ universe }: { universe: number }) {
  const broken = useOutlets(universe).filter(({ heard }) => !heard);
  return broken.map((outlet) => (
    <Link key={outletText(outlet)} href={whyHref(outletSubject(outlet))}>
      <Text kind="small" tone="fault">
        {outletText(outlet)}: {outlet.says}
      </Text>
    </Link>
  ));
}

export function UniversePage() {
  const { universe: token = '' } = useLocalSearchParams<{ universe: string }>();
  const { records, loaded } = useShow();
  const universe = findUniverse(token, records);
  if (universe) return <Universe key={universe.key} universe={universe} />;
  return <Missing loaded={loaded} what={`Universe “${token}”`} list="/listen" act="All universes" />;
}

function Universe({ universe }: { universe: NamedUniverse }) {
  const wide = useWide();
  const router = useRouter();
  const { slot: asked } = useLocalSearchParams<{ slot?: string }>();
  const { records, patch } = useShow();
  const report = reportOf(useLive(), universe.key);
  const pennants = usePennants(report, sendersOf(records.machine));
  const [view, setView] = useState<Shown>('bands');
  const [unit, setUnit] = useState<Unit>('dmx');
  const channel = Number(asked);
  const chosen = Number.isInteger(channel) && channel >= 1 && channel <= 512 ? channel - 1 : undefined;
  const choose = (slot: number | undefined) =>
    router.setParams({ slot: slot === undefined ? undefined : String(slot + 1) } as Record<string, string>);

  const streams = report?.streams ?? [];
  const inUse = useMemo(
    () => new Set(records.control.flatMap(({ wire, channel: at }) => (wireKey(wire) === universe.key ? at - 1 : []))),
    [records.control, universe.key],
  );
  const senders = streams.filter((stream) => !stream.lost && !stream.own).map(({ name, address }) => name || address);
  const title = universe.plan
    ? `Universe ${universe.plan.number}${universe.plan.name && `, ${universe.plan.name}`}`
    : formatWireFully(fromWireKey(universe.key));
  const spans = universe.plan ? patch.universe(universe.plan.number) : [];
  const sheet =
    chosen === undefined ? null : (
      <SlotSheet
        universe={universe}
        report={report}
        slot={chosen}
        unit={unit}
        pennants={pennants}
        onStep={choose}
        onClose={() => choose(undefined)}
      />
    );

  return (
    <View className="flex-1 bg-ground">
      <View className="gap-2 border-b border-line px-4 pb-2 pt-3">
        <View className="flex-row items-center gap-3">
          <View className="flex-1">
            <Sentence>{title}</Sentence>
            <Text kind="small" numberOfLines={3}>
              {senders.length > 0 ? `from ${senders.join(' and ')}` : 'from nobody'}
              {report?.because ? ` · ${report.because}` : ''}
              {universe.plan ? ` · ${formatWireFully(fromWireKey(universe.key))}` : ''}
            </Text>
            {universe.plan && <BrokenOutlets universe={universe.plan.number} />}
            {universe.plan && (
              <Link href={whyHref({ kind: 'universe', id: String(universe.plan.number), part: '' })}>
                <Text kind="small" tone="press">
                  Why? Its whole path
                </Text>
              </Link>
            )}
            <Link
              href={
                universe.plan
                  ? `/rig/universes/${universe.plan.number}?view=way`
                  : `/rig/universes/add?wire=${formatWireToken(fromWireKey(universe.key))}`
              }
            >
              <Text kind="small" tone="press">
                {universe.plan ? 'Change this universe' : 'Add it to the show'}
              </Text>
            </Link>
          </View>
          {report && <StateWord state={report.state} />}
        </View>
        <View className={wide ? 'flex-row gap-3' : 'gap-2'}>
          <View className="flex-1">
            <Choice label="What is shown" options={VIEWS} value={view} onChange={setView} />
          </View>
          {view !== 'streams' && (wide || chosen === undefined) && (
            <View className={wide ? 'w-64' : ''}>
              <Choice label="Values as" options={UNITS} value={unit} onChange={setUnit} />
            </View>
          )}
        </View>
      </View>
      {view === 'streams' ? (
        <ScrollView contentContainerClassName="gap-3 p-4">
          <Section title="Packets a second">
            <RateChart streams={streams} />
          </Section>
          <SyncSection streams={streams} />
          <Section title="Streams">
            {streams.length === 0 && <Text kind="soft">Nothing has been heard on this universe.</Text>}
            {streams.map((stream) => (
              <StreamDetails key={stream.mark} stream={stream} />
            ))}
          </Section>
        </ScrollView>
      ) : (
        <View className={`flex-1 ${wide ? 'flex-row' : ''}`}>
          <View className="min-h-0 flex-1 pt-2">
            <SlotField
              universeKey={universe.key}
              spans={spans}
              pennants={pennants}
              unit={unit}
              plain={view === 'plain'}
              inUse={inUse}
              chosen={chosen}
              onChoose={choose}
            />
          </View>
          {sheet && (
            <ScrollView
              className={
                wide
                  ? 'w-[340px] grow-0 border-l border-line bg-surface'
                  : 'max-h-[55%] grow-0 border-t border-line bg-surface'
              }
            >
              {sheet}
            </ScrollView>
          )}
        </View>
      )}
    </View>
  );
}
