/** Wire: planned and heard machines in one list, each with the word that says how it stands. */
import { usePathname, useRouter } from 'expo-router';
import RefreshCw from 'lucide-react-native/icons/refresh-cw';
import { useMemo } from 'react';
import { View } from 'react-native';
import { matchesWords } from '@taxiarch/core/network/jump';
import type { MachineEntry, MachineState } from '@taxiarch/core/network/node';
import { machineSelection, useSelection } from '@/data/selection';
import { placeFilter, useListChoice, usePreference } from '@/data/preferences';
import { useLive } from '@/data/live';
import { scan, useHeardFaults, useMachines } from '@/data/machines';
import { useNetworkFindings, useShow } from '@/data/show';
import { useStable } from '@/data/stable';
import { Button, Field, ListKeys, Pick, Screen, Sentence, SentenceLink, count, useWide } from '@/ui';
import { MachineRows, canChoose, lineOf } from './MachineRows';
import { WireTools } from './WireTools';
import { STATES, countStates, notAsPlanned } from './words';

const ORDERS = [
  { value: 'state', label: 'By state' },
  { value: 'address', label: 'By address' },
  { value: 'name', label: 'By name' },
  { value: 'seen', label: 'Last heard' },
];

function WireSentence() {
  const entries = useMachines();
  const findings = useNetworkFindings().length + useHeardFaults().length;
  const live = useLive();
  if (!live) return <Sentence>Listening…</Sentence>;
  const counts = countStates(entries);
  const heard = entries.length - counts.stranger - counts.unseen;
  if (entries.length === 0) return <Sentence>No machine is planned, and none is heard.</Sentence>;
  const off = notAsPlanned(counts);
  return (
    <Sentence>
      {counts.matched} of {count(heard, 'machine')} matched{off === '' ? '.' : `; ${off}.`}
      {live.nodesMore > 0 && ` And ${count(live.nodesMore, 'stranger')} more.`}
      {findings > 0 && ' '}
      {findings > 0 && <SentenceLink href={'/wire/findings'}>{`${count(findings, 'finding')}.`}</SentenceLink>}
    </Sentence>
  );
}

const byName = new Intl.Collator('en', { numeric: true }).compare;

function sorted(entries: readonly MachineEntry[], order: string): readonly MachineEntry[] {
  const copy = [...entries];
  if (order === 'name') return copy.sort((a, b) => byName(a.name, b.name));
  if (order === 'seen') return copy.sort((a, b) => (b.heard?.lastSeen ?? 0) - (a.heard?.lastSeen ?? 0));
  if (order === 'state') return copy.sort((a, b) => STATES.indexOf(a.state) - STATES.indexOf(b.state));
  return copy;
}

interface Wanted {
  readonly query: string;
  /** Of this state only; empty for all */
  readonly state: MachineState | '';
  readonly order: string;
}

/** The machines that a person wants to see. */
function useShown({ query, state, order }: Wanted): readonly MachineEntry[] {
  const entries = useMachines();
  const place = usePreference(placeFilter);
  return useMemo(
    () =>
      sorted(
        entries.filter(
          (entry) =>
            (state === '' || entry.state === state) &&
            (place === '' || !entry.plan || entry.plan.placeId === place) &&
            (query === '' ||
              matchesWords(
                `${entry.name} ${entry.address} ${entry.plan?.kind ?? ''} ${entry.model?.maker ?? ''} ${entry.model?.name ?? ''} ${entry.heard?.node?.mac ?? ''} ${entry.state}`,
                query,
              )),
        ),
        order,
      ),
    [entries, state, place, query, order],
  );
}

/** What follows the reports stands apart from the fields above it, which do not. */
interface ShownProps {
  wanted: Wanted;
  picking: boolean;
  onBegin: () => void;
  onEnd: () => void;
}

function ShownRows({ wanted, picking, onBegin, onEnd }: ShownProps) {
  const here = usePathname();
  const chosen = useSelection(machineSelection);
  const { loaded } = useShow();
  const any = useMachines().length > 0;
  const lines = useStable(useShown(wanted).map(lineOf));
  return (
    <ListKeys
      ids={() => lines.filter(canChoose).map(({ id }) => id)}
      chosen={chosen}
      onChoose={(ids) => machineSelection.set(ids)}
      onBegin={onBegin}
      onEnd={onEnd}
    >
      <MachineRows
        lines={lines}
        here={here}
        picking={picking}
        chosen={chosen}
        empty={!loaded ? '' : any ? 'No machine fits.' : 'Planned machines, and those that are heard, will stand here.'}
      />
    </ListKeys>
  );
}

function ChooseAll({ wanted }: { wanted: Wanted }) {
  const shown = useShown(wanted);
  return <Button label="All" onPress={() => machineSelection.set(idsOf(shown))} />;
}

/** Ids of planned machines, addresses of strangers. */
const idsOf = (entries: readonly MachineEntry[]): readonly string[] =>
  entries
    .map(lineOf)
    .filter(canChoose)
    .map(({ id }) => id);

/** What can be done with those that are chosen. */
function ChosenActs() {
  const router = useRouter();
  const chosen = useSelection(machineSelection);
  const strangers = useMachines().filter(({ key, state }) => state === 'stranger' && chosen.includes(key)).length;
  const planned = chosen.length - strangers;
  return (
    <>
      {strangers > 0 && (
        <Button label={`Adopt ${strangers}`} look="main" grow onPress={() => router.navigate('/wire/adopt')} />
      )}
      {(planned > 0 || strangers === 0) && (
        <Button
          label={`Settings for ${planned}`}
          look={strangers > 0 ? 'plain' : 'main'}
          grow
          disabled={planned === 0}
          onPress={() => router.navigate('/wire/kept')}
        />
      )}
    </>
  );
}

export function MachineList() {
  const router = useRouter();
  const wide = useWide();
  const [query, setQuery] = useListChoice('machines search', '');
  const [state, setState] = useListChoice<MachineState | ''>('machines state', '');
  const [order, setOrder] = useListChoice('machines order', 'state');
  const [picking, setPicking] = useListChoice<'yes' | ''>('machines choosing', '');
  const wanted: Wanted = { query, state, order };
  const endPicking = () => {
    setPicking('');
    machineSelection.set([]);
  };
  return (
    <Screen
      fixed
      sentence={<WireSentence />}
      acts={
        picking ? (
          <>
            <Button label="Done" onPress={endPicking} />
            <ChooseAll wanted={wanted} />
            <ChosenActs />
          </>
        ) : (
          <>
            <Button label="Look again" icon={RefreshCw} iconOnly onPress={() => void scan()} />
            <Button label="Choose" grow onPress={() => setPicking('yes')} />
            <Button label="Add" look="main" grow onPress={() => router.navigate('/wire/change/new')} />
          </>
        )
      }
    >
      <View className="gap-2 px-4 pb-2">
        {!wide && <WireTools />}
        <Field
          label="Search machines"
          hideLabel
          placeholder="Search: name, address, kind, model"
          value={query}
          onChange={setQuery}
        />
        <View className="flex-row gap-2">
          <View className="flex-1">
            <Pick
              label="Which machines"
              hideLabel
              options={[{ value: '', label: 'All states' }, ...STATES.map((value) => ({ value, label: value }))]}
              value={state}
              onChange={(value) => setState(value as MachineState | '')}
            />
          </View>
          <View className="flex-1">
            <Pick label="Order" hideLabel options={ORDERS} value={order} onChange={setOrder} />
          </View>
        </View>
      </View>
      <ShownRows wanted={wanted} picking={picking === 'yes'} onBegin={() => setPicking('yes')} onEnd={endPicking} />
    </Screen>
  );
}
