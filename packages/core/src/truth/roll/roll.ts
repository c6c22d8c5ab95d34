/** The roll call: every lamp of the plan with the word for how it stands, every stranger, and what is wrong with ports. */
import { formatAddress, isAddressed } from '../../base/address';
import type { Patch, PatchedLamp } from '../../rig/patch';
import { listOf, plain, report, words, type ReportOf } from '../../base/field';
import type { ShowRecords } from '../../show/records';
import { wireNumber } from '../../network/machine';
import { lampPortKey } from './ask';
import { differencesOf, modeWanted } from './compare';
import { pair } from './match';
import { rollPort, rollProgress, type RollNow, type RollPort, type RollProgress, type SeenLamp } from './seen';
import { rollRow, type RollRow, type RollState } from './row';
import { portTrouble, troubles, type PortTrouble } from './troubles';

export const rollReply = report('Roll', {
  sentence: words('How the rig stands, in one sentence.'),
  progress: plain<RollProgress>(rollProgress.schema),
  rows: listOf<RollRow>(rollRow),
  ports: listOf<RollPort>(rollPort),
  troubles: listOf<PortTrouble>(portTrouble),
});
export interface RollReply extends ReportOf<typeof rollReply.fields> {}

/** Ports of the plan that carry a universe. */
function carriers(
  records: Pick<ShowRecords, 'machine' | 'universe'>,
): ReadonlyMap<number, { machineId: string; number: number }[]> {
  const universes = new Map(records.universe.map((one) => [one.number, one]));
  const byWire = new Map(records.universe.map((one) => [`${one.protocol} ${one.wire}`, one.number]));
  const found = new Map<number, { machineId: string; number: number }[]>();
  for (const machine of records.machine)
    for (const port of machine.ports) {
      if (port.use !== 'out') continue;
      const number = byWire.get(`${port.protocol} ${wireNumber(port, universes)}`) ?? port.universe;
      found.set(number, [...(found.get(number) ?? []), { machineId: machine.id, number: port.number }]);
    }
  return found;
}

const portText = (port: RollPort | undefined): string => (port ? `${port.name}, port ${port.number}` : '');

interface Facts {
  /** Ports on which it may hang: by the plan, or where its neighbours answer */
  readonly its: readonly RollPort[];
  readonly patched: PatchedLamp;
}

/** A port of which nothing is said yet */
const OPEN: ReadonlySet<RollPort['state']> = new Set(['not asked', 'asking']);

const PORT_SAYS: Readonly<Record<RollPort['state'], string>> = {
  'not asked': 'was not asked yet',
  asking: 'is being asked',
  off: 'has its RDM off',
  cannot: 'has no RDM',
  away: 'does not answer',
  silent: 'does not tell who hangs on it',
  asked: 'answers',
};
/** What was said through such a port is no word of now. */
const SHUT: ReadonlySet<RollPort['state']> = new Set(['off', 'cannot', 'away', 'silent']);

/** Why a lamp that nothing was matched to is silent; as little as is known. */
function silence({ its, patched }: Facts): readonly [RollState, string] {
  const { type, lamp } = patched;
  if (type.answers === 'no') return ['cannot answer', 'Lamps of its type cannot be asked.'];
  if (!isAddressed(lamp)) return ['cannot be asked', 'It has no address.'];
  if (its.length === 0) return ['cannot be asked', `No node that could ask it carries universe ${lamp.universe}.`];
  const open = its.filter(({ state }) => state === 'asked');
  if (open.length < its.length) {
    const [port] = its.filter(({ state }) => state !== 'asked') as [RollPort];
    const state = OPEN.has(port.state) ? 'not known' : 'cannot be asked';
    return [state, `${portText(port)} ${PORT_SAYS[port.state]}.`];
  }
  const where = open.map(portText).join(' or ');
  if (type.answers === 'yes' || lamp.uid !== '')
    return ['missing', `Not on ${where}, asked twice: not connected, without power, or not receiving.`];
  return ['not known', `Not on ${where}, asked twice. Unknown whether its type can answer.`];
}

function rowOf(
  facts: Facts,
  match: { seen: SeenLamp; confidence: RollRow['confidence']; because: string } | undefined,
  hangs: RollPort | undefined,
): RollRow {
  const { patched, its } = facts;
  const { lamp, mode, footprint } = patched;
  const plain = {
    lampId: lamp.id,
    number: lamp.number,
    name: lamp.name,
    place: lamp.placeId ?? '',
    planned: `${formatAddress(lamp)}, ${mode.name}, ${footprint} slots`,
  };
  if (!match) {
    const [state, says] = silence(facts);
    const at = its.length === 1 ? its[0] : undefined;
    return {
      ...plain,
      ...{ uid: lamp.uid, state, says, confidence: '', because: '', differences: [], seen: null, wanted: null },
      ...{ port: portText(at), machineId: at?.machineId ?? '', portNumber: at?.number ?? 0 },
    };
  }
  const { seen, confidence, because } = match;
  const place = { port: portText(hangs), machineId: hangs?.machineId ?? '', portNumber: hangs?.number ?? 0 };
  if (seen.says === 'nothing')
    return {
      ...plain,
      ...place,
      ...{ uid: seen.uid, confidence, because, differences: [], seen, wanted: null, state: 'no answer' },
      says: 'Its node lists it, but it doesn’t answer. Two lamps may share its UID, or its cable is bad.',
    };
  const onPort = hangs === undefined || its.includes(hangs);
  const differences = differencesOf(patched, seen, onPort, portText(hangs));
  const wanted = { address: lamp.channel, mode: modeWanted(patched, seen) ?? null };
  const odd = seen.errors.length > 0 ? ` It says: ${seen.errors.join('; ')}.` : '';
  const told =
    differences.length === 0
      ? `It answers as planned.${odd}`
      : `${differences.map((one) => `${wordOf(one.what)} ${one.seen} where ${one.planned} is planned`).join('; ')}.${odd}`;
  const shut = hangs && SHUT.has(hangs.state);
  return {
    ...plain,
    ...place,
    ...{ uid: seen.uid, confidence, because, differences, seen, wanted: shut ? null : wanted },
    state: shut ? 'cannot be asked' : differences.length === 0 ? 'as planned' : 'differs',
    says: shut ? `${portText(hangs)} ${PORT_SAYS[hangs.state]} now; before that: ${told}` : told,
  };
}

const wordOf = (what: RollRow['differences'][number]['what']): string =>
  ({ address: 'Set to', mode: 'In mode', port: 'On', type: 'It is a' })[what];

function strangerRow(seen: SeenLamp, hangs: RollPort | undefined): RollRow {
  const what = `${seen.maker} ${seen.model}`.trim() || 'A lamp';
  return {
    ...{ lampId: '', number: 0, name: seen.label || what, place: '', planned: '', uid: seen.uid },
    ...{
      confidence: '',
      because: '',
      differences: [],
      seen,
      wanted: null,
      state: seen.says === 'nothing' ? 'no answer' : 'stranger',
    },
    says:
      seen.says === 'nothing'
        ? 'The node lists it, but it doesn’t answer. Two lamps may share this UID, or its cable is bad.'
        : `${what} at ${seen.startAddress ?? 'no address'} is not in the plan.`,
    ...{ port: portText(hangs), machineId: hangs?.machineId ?? '', portNumber: hangs?.number ?? 0 },
  };
}

const count = (rows: readonly RollRow[], state: RollState): number => rows.filter((one) => one.state === state).length;

/** "391 of 420 lamps answer as planned. 4 differ, 2 are missing, 1 stranger, 22 cannot answer." */
export function rollSentence(
  rows: readonly RollRow[],
  { began, running, cancelled, done, of, ports, ofPorts }: RollProgress,
): string {
  const lamps = rows.filter(({ lampId }) => lampId !== '').length;
  if (began === 0) return `Nobody has asked the ${lamps} lamps yet.`;
  const parts: readonly (readonly [RollState, (n: number) => string])[] = [
    ['differs', (n) => `${n} ${n === 1 ? 'differs' : 'differ'}`],
    ['missing', (n) => `${n} ${n === 1 ? 'is' : 'are'} missing`],
    ['no answer', (n) => `${n} found without an answer`],
    ['stranger', (n) => `${n} stranger${n === 1 ? '' : 's'}`],
    ['cannot answer', (n) => `${n} cannot answer`],
    ['cannot be asked', (n) => `${n} cannot be asked`],
    ['not known', (n) => `${n} not known`],
  ];
  const said = parts.flatMap(([state, words]) => (count(rows, state) > 0 ? [words(count(rows, state))] : []));
  const more = said.length > 0 ? ` ${said.join(', ')}.` : '';
  const till =
    running && (done < of || ports < ofPorts)
      ? ' So far; the call runs.'
      : cancelled
        ? ' The call was ended before its end.'
        : '';
  return `${count(rows, 'as planned')} of ${lamps} lamps answer as planned.${more}${till}`;
}

/** Everything as it stands by what was asked so far. */
export function rollOf(records: Pick<ShowRecords, 'machine' | 'universe'>, patch: Patch, now: RollNow): RollReply {
  const lamps = patch.all().filter(({ run }) => run === undefined);
  const byKey = new Map(now.ports.map((port) => [lampPortKey(port), port]));
  const hangsOn = (seen: SeenLamp) => byKey.get(lampPortKey(seen));
  const carry = carriers(records);
  const its = new Map<number, readonly RollPort[]>();
  for (const [universe, ports] of carry)
    its.set(
      universe,
      ports.flatMap(
        ({ machineId, number }) => now.ports.find((one) => one.machineId === machineId && one.number === number) ?? [],
      ),
    );
  const portsOf = ({ lamp }: PatchedLamp): readonly RollPort[] => its.get(lamp.universe) ?? [];
  const { matches, strangers } = pair(lamps, now.seen, (patched, seen) => {
    const hangs = hangsOn(seen);
    return hangs !== undefined && portsOf(patched).includes(hangs);
  });
  const neighbours = neighbourPorts(matches, hangsOn);
  const rows = [
    ...lamps
      .map((patched) => {
        const match = matches.get(patched);
        const near = match ? undefined : neighbours(patched);
        const its = near?.state === 'asked' && portsOf(patched).includes(near) ? [near] : portsOf(patched);
        return rowOf({ patched, its }, match, match && hangsOn(match.seen));
      })
      .sort((a, b) => a.number - b.number),
    ...strangers.map((seen) => strangerRow(seen, hangsOn(seen))),
  ];
  return {
    sentence: rollSentence(rows, now.progress),
    progress: now.progress,
    rows,
    ports: now.ports,
    troubles: troubles(rows, now, (uid) => twinOf(lamps, matches, uid)).filter(
      ({ key }) => !now.leftAlone.includes(key),
    ),
  };
}

/** So many times as many neighbours on one port as on any other say where a lamp hangs. */
const CLEARLY = 3;

/** The port on which clearly the most of a lamp’s universe and place answer; undefined if there is none. */
function neighbourPorts(
  matches: ReadonlyMap<PatchedLamp, { seen: SeenLamp }>,
  hangsOn: (seen: SeenLamp) => RollPort | undefined,
): (patched: PatchedLamp) => RollPort | undefined {
  const keyOf = ({ lamp }: PatchedLamp) => `${lamp.universe} ${lamp.placeId ?? ''}`;
  const found = new Map<string, Map<RollPort, number>>();
  for (const [patched, { seen }] of matches) {
    const port = hangsOn(seen);
    if (!port) continue;
    const ports = found.get(keyOf(patched)) ?? new Map<RollPort, number>();
    found.set(keyOf(patched), ports.set(port, (ports.get(port) ?? 0) + 1));
  }
  return (patched) => {
    const [most, next] = [...(found.get(keyOf(patched)) ?? [])].sort(([, a], [, b]) => b - a);
    return most && (!next || most[1] >= next[1] * CLEARLY) ? most[0] : undefined;
  };
}

/** The word by which a lamp shares its address on purpose; empty if it does not. */
function twinOf(
  lamps: readonly PatchedLamp[],
  matches: ReadonlyMap<PatchedLamp, { seen: SeenLamp }>,
  uid: string,
): string {
  for (const [patched, { seen }] of matches) if (seen.uid === uid) return patched.lamp.twin ?? '';
  return lamps.find(({ lamp }) => lamp.uid === uid)?.lamp.twin ?? '';
}
