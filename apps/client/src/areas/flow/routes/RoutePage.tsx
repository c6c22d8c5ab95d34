/** One route: its slots alive with the owner of each, ranges held by hand or taken from another input, and its switch. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { wireKey } from '@taxiarch/core/base/address';
import { type LiveReport, ROUTE_KEYS } from '@taxiarch/core/whole/contract';
import {
  BY_HAND,
  BY_PART,
  giveBackRange,
  partText,
  type RoutePart,
  type RouteReport,
  routeText,
  setRange,
} from '@taxiarch/core/signal/route';
import { pennantOf, type Sender, sendersOf } from '@taxiarch/core/network/flow';
import { changed } from '@taxiarch/core/show/edit';
import type { Pennant, Route, Universe } from '@taxiarch/core/show/records';
import { Forecast } from '@/areas/prove/Forecast';
import { SlotField } from '@/areas/listen/SlotField';
import { useLive } from '@/data/live';
import { wholeFrom } from '@/data/numbers';
import { giveBackRoute, plannedAt, wireFrom, wireName } from '@/data/routes';
import { propose, useShow } from '@/data/show';
import { Button, Choice, Field, Notice, PennantFlag, Screen, Section, Sentence, Text, Missing } from '@/ui';
import { RouteEditor } from './RouteEditor';
import { useRouteSwitch } from './RoutesPage';

/** The flag of what a person holds by hand. */
const HAND: Pennant = { letter: 'H', cut: 'square', fill: 'dots' };

/** Who feeds a universe now: the planned or heard sender of its first stream. */
function pennantAt(key: number, sender: string, live: LiveReport | undefined, senders: readonly Sender[]): Pennant {
  const streams = live?.universes.find((one) => one.key === key)?.streams.filter((one) => !one.lost) ?? [];
  const stream = sender === '' ? streams[0] : streams.find((one) => one.name === sender || one.address === sender);
  return pennantOf(stream ?? { name: sender, address: '', own: false }, senders);
}

function usePennants(route: Route, live: LiveReport | undefined, senders: readonly Sender[]) {
  const flags = [
    ...route.inputs.map(({ wire, sender }, i) => [i, pennantAt(wireKey(wire), sender, live, senders)] as const),
    ...route.parts.flatMap(({ from }, i) =>
      from ? [[BY_PART + i, pennantAt(wireKey(from.wire), '', live, senders)] as const] : [],
    ),
    [BY_HAND, HAND] as const,
  ];
  const said = JSON.stringify(flags);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- what is said is all that matters
  return useMemo(() => new Map<number, Pennant>(flags), [said]);
}

export function RoutePage() {
  const { route: id = '' } = useLocalSearchParams<{ route: string }>();
  const { records, loaded } = useShow();
  const route = records.route.find((one) => one.id === id);
  if (id === 'new') return <RouteEditor route={undefined} />;
  if (route) return <Running key={id} route={route} />;
  return <Missing loaded={loaded} what="This route" list="/flow/routes" act="All routes" />;
}

/** For whose packet its frames wait where they are received. */
const syncText = ({ out, sync }: Route): string =>
  `Receivers that know synchronisation hold its frames until ${out.protocol === 'sacn' ? `our packet on sACN universe ${sync}` : 'our ArtSync'}; others show them at once.`;

/** How a route stands, in a sentence. */
function standing(route: Route, report: RouteReport | undefined): string {
  if (!report) return `${route.name} is starting.`;
  if (!report.running) return `${route.name} is off.`;
  if (!report.inputs.includes(true)) return `${route.name} is running; nothing comes in.`;
  return `${route.name} is running: ${report.rate} packets a second to ${report.to.join(', ') || 'nobody who listens'}.`;
}

function Running({ route }: { route: Route }) {
  const router = useRouter();
  const { edit } = useLocalSearchParams<{ edit?: string }>();
  const { records, patch } = useShow();
  const live = useLive();
  const report = live?.routes.find((one) => one.id === route.id);
  const { toggle, shown } = useRouteSwitch();
  const pennants = usePennants(route, live, sendersOf(records.machine));
  const [chosen, setChosen] = useState<number>();
  const planned = (wire: Route['out']) => plannedAt(wire, records.universe);
  // What goes to no universe of the show is named by the lamps that it comes from.
  const universe = planned(route.out) ?? (route.inputs[0]!.shift === 0 ? planned(route.inputs[0]!.wire) : undefined);
  const target = planned(route.out);
  const spans = universe ? patch.universe(universe.number) : [];
  if (edit) return <RouteEditor route={route} />;
  const name = (wire: Route['out']) => wireName(wire, records.universe);
  const backup = route.merge === 'backup' && report && report.current > 0 && report.inputs[0];
  return (
    <Screen
      sentence={<Sentence>{standing(route, report)}</Sentence>}
      acts={
        <>
          <Button label="Change" grow onPress={() => router.push(`/flow/routes/${route.id}?edit=yes`)} />
          <Button
            label={report?.running ? 'Switch off' : 'Run'}
            look={report?.running ? 'plain' : 'hot'}
            grow
            onPress={() => toggle([route.id], !report?.running)}
          />
        </>
      }
    >
      {shown}
      {target && !report?.running && <Forecast universe={target.number} priority={route.priority} />}
      <Text>{routeText({ ...route, parts: [] }, name)}</Text>
      {route.sync > 0 && <Text kind="small">{syncText(route)}</Text>}
      {backup && (
        <Notice state="look at">
          {name(route.inputs[0]!.wire)} is heard again; {name(route.inputs[report.current]!.wire)} still stands in for
          it.
        </Notice>
      )}
      {backup && route.returns === 'by hand' && (
        <Button label="Give back to the first" onPress={() => void giveBackRoute(route.id)} />
      )}
      <View className="flex-row flex-wrap gap-x-4 gap-y-2">
        {route.inputs.map(({ wire, sender }, i) => (
          <View key={i} className="flex-row items-center gap-2">
            <PennantFlag pennant={pennants.get(i)!} size={18} />
            <Text kind="small">
              through from {name(wire)}
              {sender && ` of ${sender}`}
              {report && !report.inputs[i] ? ', not heard' : ''}
            </Text>
          </View>
        ))}
        <View className="flex-row items-center gap-2">
          <PennantFlag pennant={HAND} size={18} />
          <Text kind="small">by hand</Text>
        </View>
        {route.parts.map(
          ({ from }, i) =>
            from && (
              <View key={`part ${i}`} className="flex-row items-center gap-2">
                <PennantFlag pennant={pennants.get(BY_PART + i)!} size={18} />
                <Text kind="small">
                  from {name(from.wire)}
                  {report && !report.parts[i] ? ', not heard' : ''}
                </Text>
              </View>
            ),
        )}
      </View>
      {report && (
        <View className="-mx-4 h-80 border-y border-line py-2">
          <SlotField
            universeKey={ROUTE_KEYS + report.row}
            spans={spans}
            pennants={pennants}
            unit="dmx"
            plain={spans.length === 0}
            chosen={chosen}
            onChoose={setChosen}
          />
        </View>
      )}
      <Parts key={chosen} route={route} first={chosen === undefined ? 1 : chosen + 1} universes={records.universe} />
    </Screen>
  );
}

const HOLDERS = [
  { value: 'hand', label: 'By hand' },
  { value: 'input', label: 'From an input' },
] as const;

/** Ranges of slots that do not pass through: set, and given back. */
function Parts({ route, first, universes }: { route: Route; first: number; universes: readonly Universe[] }) {
  const [from, setFrom] = useState(String(first));
  const [to, setTo] = useState(String(first));
  const [by, setBy] = useState<'hand' | 'input'>('hand');
  const [level, setLevel] = useState('0');
  const [universe, setUniverse] = useState('');
  const [channel, setChannel] = useState(String(first));
  const [why, setWhy] = useState('');
  const name = (wire: Route['out']) => wireName(wire, universes);

  const write = (sentence: string, parts: readonly RoutePart[]) => {
    setWhy('');
    propose(sentence, [changed('route', route, { ...route, parts })]).catch((error: Error) => setWhy(error.message));
  };
  const range = (): readonly [number, number] | undefined => {
    const [begin, end] = [wholeFrom(from), wholeFrom(to)];
    if (begin !== undefined && end !== undefined && begin >= 1 && begin <= end && end <= 512) return [begin, end];
    setWhy('Say which channels: from and to, within 1 and 512.');
    return undefined;
  };
  const set = () => {
    const at = range();
    if (!at) return;
    const held = wholeFrom(level);
    const start = wholeFrom(channel);
    const wire = by === 'input' ? wireFrom(universe, universes) : undefined;
    if (wire && !wire.ok) return setWhy(wire.why);
    if (by === 'hand' && (held === undefined || held < 0 || held > 255)) return setWhy('Levels run from 0 to 255.');
    if (by === 'input' && (start === undefined || start < 1 || start > 512))
      return setWhy('Channels run from 1 to 512.');
    const part: RoutePart = {
      first: at[0],
      last: at[1],
      by,
      level: by === 'hand' ? held! : 0,
      from: wire ? { wire: wire.value, channel: start! } : null,
    };
    write(`Set ${partText(part, name)} in ${route.name}`, setRange(route.parts, part));
  };
  const giveBack = (begin: number, end: number) =>
    write(
      `Gave ${begin === end ? begin : `${begin}-${end}`} back in ${route.name}`,
      giveBackRange(route.parts, begin, end),
    );

  return (
    <Section title="Slots that do not pass through">
      {route.parts.length === 0 && <Text kind="small">All 512 pass through.</Text>}
      {route.parts.map((part) => (
        <View key={part.first} className="min-h-12 flex-row items-center gap-3 border-b border-line">
          <Text className="flex-1">{partText(part, name)}</Text>
          <Button label={`Give back ${part.first}`} short="Give back" onPress={() => giveBack(part.first, part.last)} />
        </View>
      ))}
      <Choice label="Held" options={HOLDERS} value={by} onChange={setBy} />
      <View className="flex-row gap-2">
        <View className="flex-1">
          <Field label="From channel" mono value={from} onChange={setFrom} />
        </View>
        <View className="flex-1">
          <Field label="To channel" mono value={to} onChange={setTo} />
        </View>
        {by === 'hand' && (
          <View className="flex-1">
            <Field label="Level" mono value={level} onChange={setLevel} />
          </View>
        )}
      </View>
      {by === 'input' && (
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Field label="Universe" mono placeholder="41" value={universe} onChange={setUniverse} />
          </View>
          <View className="flex-1">
            <Field label="Its first channel" mono value={channel} onChange={setChannel} />
          </View>
        </View>
      )}
      {why !== '' && <Notice state="must fix">{why}</Notice>}
      <View className="flex-row gap-2">
        <Button
          label="Give back range"
          grow
          onPress={() => {
            const at = range();
            if (at) giveBack(...at);
          }}
        />
        <Button label="Set" look="main" grow onPress={set} />
      </View>
    </Section>
  );
}
