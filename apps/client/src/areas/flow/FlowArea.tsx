/** Flow: the ledger. Each universe with who carries it, how it is merged, where it leaves and whom it feeds. */
import { Link, useRouter } from 'expo-router';
import { useState } from 'react';
import { FlatList, Pressable, View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import {
  filterLedger,
  ledger,
  type LedgerRow,
  mergeText,
  outletText,
  type PathOutlet,
  pennantOf,
  reachesPort,
  type Sender,
  sendersOf,
} from '@taxiarch/core/network/flow';
import { placeFilter, useListChoice, usePreference } from '@/data/preferences';
import { useLive } from '@/data/live';
import { useMachines } from '@/data/machines';
import { whyHref } from '@/data/diagnosis';
import { useNetworkFindings, useShow } from '@/data/show';
import {
  Button,
  CheckBox,
  Choice,
  Empty,
  Field,
  PennantFlag,
  Screen,
  Sentence,
  SentenceLink,
  StateWord,
  Text,
  count,
  useWide,
} from '@/ui';
import { FlowPicture } from './FlowPicture';
import { outletSubject } from '@/areas/why/Way';
import { FlowTools } from './FlowTools';
import { RouteChosen } from './routes/RouteChosen';

const VIEWS = [
  { value: 'rows', label: 'Rows' },
  { value: 'picture', label: 'Picture' },
] as const;

function Outlets({ outlets }: { outlets: readonly PathOutlet[] }) {
  if (outlets.length === 0) return <Text kind="small">goes to no planned port</Text>;
  return outlets.map((outlet) => {
    const { heard, says } = outlet;
    const words = (
      <Text kind="small" tone={heard ? 'text' : 'fault'}>
        {heard ? '→ ' : '⇢ '}
        {outletText(outlet)}
        {heard ? '' : `, ${says}: why?`}
      </Text>
    );
    if (heard) return <View key={outletText(outlet)}>{words}</View>;
    // Where the port says otherwise the way breaks: that is the thing to ask about.
    return (
      <Link key={outletText(outlet)} href={whyHref(outletSubject(outlet))} asChild>
        {words}
      </Link>
    );
  });
}

function SendersOf({ row, planned }: { row: LedgerRow; planned: readonly Sender[] }) {
  const { senders, madeBy } = row;
  return (
    <>
      {senders.length === 0 && madeBy.length === 0 && <Text kind="small">nobody is planned to send it</Text>}
      {senders.map(({ name, address, own, heard, unicast }) => (
        <View key={`${name} ${own}`} className={`flex-row items-center gap-2 ${heard ? '' : 'opacity-60'}`}>
          <PennantFlag pennant={pennantOf({ name, address, own }, planned)} size={18} />
          <Text kind="small" tone={heard ? 'text' : 'soft'}>
            {name}
            {heard ? '' : unicast ? ', unicast to others: cannot be heard here' : ', not heard'}
          </Text>
        </View>
      ))}
      {madeBy.map(({ route, running }) => (
        <Link key={route.id} href={`/flow/routes/${route.id}`} asChild>
          <Text kind="small" tone="press">
            made by route {route.name}
            {running ? '' : ', off'}
          </Text>
        </Link>
      ))}
    </>
  );
}

function Path({ row, senders, choosing, chosen, onChoose }: PathProps) {
  const wide = useWide();
  const { universe, wire, report, lamps, outlets, takenBy } = row;
  const name = `${universe.number} ${universe.name}`.trim();
  const line = (
    <View className={`flex-1 ${wide ? 'flex-row items-center gap-6' : 'gap-1'}`}>
      <View className={wide ? 'w-56 gap-1' : 'flex-row flex-wrap gap-3'}>
        <SendersOf row={row} planned={senders} />
      </View>
      <View className={wide ? 'flex-1' : ''}>
        <View className="flex-row items-center gap-2">
          {choosing ? (
            <Text kind="strong" className="flex-1">
              {name}
            </Text>
          ) : (
            <Link href={`/listen/u${universe.number}`} asChild>
              <Text kind="strong" tone="press" className="flex-1">
                {name}
              </Text>
            </Link>
          )}
          {report && <StateWord state={report.state} />}
          {!choosing && (
            <Link
              href={whyHref({ kind: 'universe', id: String(universe.number), part: '' })}
              asChild
              aria-label={`Why? Universe ${universe.number}`}
            >
              <Text kind="small" tone="press">
                Why?
              </Text>
            </Link>
          )}
          {!choosing && (
            <Link
              href={`/rig/universes/${universe.number}?view=way`}
              asChild
              aria-label={`Change universe ${universe.number}`}
            >
              <Text kind="small" tone="press">
                Change
              </Text>
            </Link>
          )}
        </View>
        <Text kind="small">
          {formatWire(wire)} · {mergeText(row)} · {lamps === 0 ? 'feeds no lamps' : `feeds ${count(lamps, 'lamp')}`}
          {takenBy.length > 0 && ` · sent on by ${takenBy.map(({ route }) => route.name).join(', ')}`}
        </Text>
      </View>
      <View className={wide ? 'w-72' : ''}>
        <Outlets outlets={outlets} />
      </View>
    </View>
  );
  if (!choosing) return <View className="flex-row border-b border-line py-3">{line}</View>;
  return (
    <Pressable
      role="checkbox"
      aria-checked={chosen}
      aria-label={name}
      onPress={onChoose}
      className="flex-row items-center gap-3 border-b border-line py-3"
    >
      <CheckBox on={chosen} />
      {line}
    </Pressable>
  );
}

interface PathProps {
  row: LedgerRow;
  senders: readonly Sender[];
  choosing: boolean;
  chosen: boolean;
  onChoose: () => void;
}

export function FlowArea() {
  const router = useRouter();
  const wide = useWide();
  const live = useLive();
  const { records, patch, loaded } = useShow();
  const entries = useMachines();
  const findings = useNetworkFindings();
  const place = usePreference(placeFilter);
  const [view, setView] = useListChoice<(typeof VIEWS)[number]['value']>('flow view', 'rows');
  const [only, setOnly] = useListChoice('flow only', '');
  const [chosen, setChosen] = useState<ReadonlySet<number>>();
  const all = ledger(records, patch, live, entries);
  const rows = filterLedger(all, only, patch, place);
  const through = all.filter(reachesPort).length;
  const toggle = (number: number) => {
    const next = new Set(chosen);
    if (!next.delete(number)) next.add(number);
    setChosen(next);
  };
  const head = (
    <View className="gap-4">
      <View className="gap-2">
        <FlowTools />
        <View className={wide ? 'flex-row gap-2' : 'gap-2'}>
          <View className={wide ? 'w-72' : ''}>
            <Choice label="Shown as" options={VIEWS} value={view} onChange={setView} />
          </View>
          <View className={wide ? 'flex-1' : ''}>
            <Field
              label="Only"
              hideLabel
              placeholder="Only: 1-4, lamp 101, a machine or sender"
              value={only}
              onChange={setOnly}
            />
          </View>
        </View>
      </View>
      {chosen && <RouteChosen universes={[...chosen].sort((a, b) => a - b)} onDone={() => setChosen(undefined)} />}
      {rows.length === 0 && all.length > 0 && <Empty>No universe fits what is asked for.</Empty>}
    </View>
  );
  return (
    <Screen
      across
      fixed={view === 'rows'}
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : all.length === 0
              ? 'No universes are planned yet.'
              : `${through} of ${count(all.length, 'universe')} leave a port, as the ports say.`}
          {findings.length > 0 && ' '}
          {findings.length > 0 && (
            <SentenceLink href={'/wire/findings'}>{`${count(findings.length, 'finding')}.`}</SentenceLink>
          )}
        </Sentence>
      }
      acts={
        chosen ? (
          <>
            <Button
              label="Choose shown"
              grow
              onPress={() => setChosen(new Set(rows.map((row) => row.universe.number)))}
            />
            <Button label="Leave it" grow onPress={() => setChosen(undefined)} />
          </>
        ) : (
          <>
            {view === 'rows' && all.length > 0 && (
              <Button label="Route a range" grow onPress={() => setChosen(new Set())} />
            )}
            <Button label="Add universes" grow onPress={() => router.navigate('/rig/universes/add')} />
          </>
        )
      }
    >
      {view === 'picture' ? (
        <>
          {head}
          <FlowPicture rows={rows} senders={sendersOf(records.machine)} onOnly={setOnly} />
        </>
      ) : (
        <FlatList
          data={rows}
          keyExtractor={({ universe }) => universe.id}
          initialNumToRender={12}
          ListHeaderComponent={head}
          contentContainerClassName="px-4 pb-6"
          renderItem={({ item }) => (
            <Path
              row={item}
              senders={sendersOf(records.machine)}
              choosing={chosen !== undefined}
              chosen={chosen?.has(item.universe.number) ?? false}
              onChoose={() => toggle(item.universe.number)}
            />
          )}
        />
      )}
    </Screen>
  );
}
