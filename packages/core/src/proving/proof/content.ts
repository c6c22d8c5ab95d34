/** A record of proof drawn up from the show, from what people marked, and from what devices say. */
import { DIP_USUAL, dipSwitches, formatAddress, formatWire } from '../../base/address';
import { sentTo, linesWith, sendersOf, universesOf } from '../../network/flow';
import { addressesOf } from '../../network/ip';
import { MERGE_WORDS, START_WORDS, lossText, portsByUniverse } from '../../network/machine';
import { driftWords, type MachineEntry } from '../../network/node';
import type { Patch, PatchedLamp } from '../../rig/patch';
import type { ProofPart, ShowRecords } from '../../show/records';
import type { RollRow } from '../../truth/roll';
import { everyLamp, ordered, type StoodNow } from '../walk';
import { portOfKey } from '../../truth/simulate';
import { costText, type FailureRow } from '../../truth/whatif';
import { PROOF_FORMAT, type ProofContent, type ProvenLamp } from './said';

export interface ProofGiven {
  readonly records: ShowRecords;
  readonly patch: Patch;
  readonly seq: number;
  /** ISO 8601 */
  readonly at: string;
  readonly parts: readonly ProofPart[];
  readonly stood: StoodNow;
  readonly entries: readonly MachineEntry[];
  readonly rows: readonly RollRow[];
  readonly failures: readonly FailureRow[];
}

const lampText = ({ lamp }: PatchedLamp): string => `${lamp.number} ${lamp.name}`;

function lampsOf({ records, patch, stood, rows }: ProofGiven): { placeId: string | null; lamp: ProvenLamp }[] {
  const marked = everyLamp(records, patch, stood);
  const answers = new Map(rows.map((row) => [row.lampId, row]));
  return ordered(
    patch.all(),
    'place',
    [...records.place].sort((a, b) => a.order - b.order),
  ).map((patched) => {
    const { lamp, type, mode } = patched;
    const found = marked.get(lamp.id);
    const row = answers.get(lamp.id);
    const counts = found !== undefined && found.changed.length === 0 && found.state !== 'skipped';
    const said = row?.state === 'as planned' || row?.state === 'differs';
    return {
      placeId: lamp.placeId,
      lamp: {
        ...{ number: lamp.number, name: lamp.name, address: formatAddress(lamp) },
        ...{ type: `${type.maker} ${type.name}`.trim(), mode: mode.name, state: found?.state ?? 'untried' },
        known: counts ? 'seen' : said ? 'said' : 'not known',
        ...{ by: found?.mark.by ?? '', at: found?.mark.at ?? '', why: found?.mark.why ?? '' },
        ...{ note: found?.mark.note ?? '', photo: found?.mark.photo ?? '', changed: found?.changed ?? [] },
        answers: said ? row.says : '',
      },
    };
  });
}

/** Every lamp that was ever said to have failed, by its last failure, and what was said of it after that. */
function failedOf({ records, patch }: ProofGiven): ProofContent['failed'] {
  const places = new Map(records.place.map(({ id, name }) => [id, name]));
  const byLamp = new Map<string, (typeof records.mark)[number][]>();
  for (const mark of [...records.mark].sort((a, b) => (a.at < b.at ? -1 : 1)))
    byLamp.set(mark.lampId, [...(byLamp.get(mark.lampId) ?? []), mark]);
  return [...byLamp].flatMap(([id, marks]) => {
    const patched = patch.lamp(id);
    const last = marks.findLastIndex(({ result }) => result === 'failed');
    if (!patched || last < 0) return [];
    const { why, note, by, at } = marks[last]!;
    const after = marks.slice(last + 1).find(({ result }) => result === 'proved');
    return [
      {
        ...{ lamp: lampText(patched), place: places.get(patched.lamp.placeId ?? '') ?? '', why, note, by, at },
        then: after ? `proved by ${after.by}, ${after.at.slice(0, 16).replace('T', ' ')}` : 'still so',
      },
    ];
  });
}

function nodesOf({ entries }: ProofGiven): ProofContent['nodes'] {
  return entries.flatMap(({ plan, heard, name, state, drift }) => {
    if (!plan || (plan.ports.length === 0 && !plan.controller)) return [];
    const node = heard && !heard.gone ? heard.node : undefined;
    const says = new Map(node?.ports.filter(({ direction }) => direction === 'out').map((port) => [port.number, port]));
    return [
      {
        ...{ name, address: heard?.address ?? addressesOf(plan)[0]?.text ?? '', state },
        firmware: node?.firmware ?? '',
        differs: drift.map((one) => {
          const { what, planned, seen } = driftWords(one);
          return `${what}: ${planned} planned, ${seen} said`;
        }),
        ports: plan.ports
          .filter(({ use }) => use === 'out')
          .map((port) => {
            const said = says.get(port.number);
            return {
              port: port.number,
              planned: `universe ${port.universe}, ${port.merge}`,
              says: said
                ? `${formatWire({ protocol: said.sacn ? 'sacn' : 'artnet', number: said.portAddress })}, ${said.ltp ? 'LTP' : 'HTP'}`
                : 'nothing',
            };
          }),
      },
    ];
  });
}

function universesOfShow({ records }: ProofGiven): ProofContent['universes'] {
  const senders = sendersOf(records.machine);
  const leaving = portsByUniverse(records);
  const names = new Map(records.machine.map(({ id, name }) => [id, name]));
  return [...records.universe]
    .sort((a, b) => a.number - b.number)
    .map((universe) => ({
      ...{ number: universe.number, name: universe.name },
      wire: formatWire({ protocol: universe.protocol, number: universe.wire }),
      sentBy: senders
        .filter((one) => universesOf(one).includes(universe.number))
        .map((one) => {
          const [line] = linesWith(one, universe.number);
          const to = line && sentTo(line, universe.number, universe);
          return `${one.name}${to?.protocol === 'sacn' ? `, priority ${line!.priority}` : ''}`;
        }),
      ports: (leaving.get(universe.number) ?? []).map((key) => {
        const { nodeId, port } = portOfKey(key);
        return `${names.get(nodeId)} ${port}`;
      }),
    }));
}

/** What nobody knows, in sentences. */
function notKnownOf(lamps: readonly ProvenLamp[], { entries, rows }: ProofGiven): string[] {
  const untried = lamps.filter(({ state }) => state === 'untried' || state === 'skipped').length;
  const old = lamps.filter(({ changed }) => changed.length > 0).length;
  const disputed = lamps.filter(({ state }) => state === 'disputed').length;
  const heard = entries.some(({ heard: one }) => one);
  const silent = entries.filter(({ state, plan }) => plan && state === 'missing').map(({ name }) => name);
  return [
    untried > 0 ? `Nobody has looked at ${untried} of ${lamps.length} lamps.` : '',
    old > 0 ? `${old} lamps were looked at before something on their path changed.` : '',
    disputed > 0 ? `On ${disputed} lamps two people disagree.` : '',
    silent.length > 0 ? `These do not answer, so how they are set is not known: ${silent.join(', ')}.` : '',
    heard ? '' : 'No node was heard, so how they are set is not known.',
    rows.length === 0 ? 'No lamp was asked how it is set.' : '',
    'What a node does when signal is lost is as planned; most cannot say it.',
  ].filter(Boolean);
}

/** How many of what, in one sentence. */
function sentenceOf(lamps: readonly ProvenLamp[]): string {
  const seen = lamps.filter(({ state, changed }) => state === 'proved' && changed.length === 0).length;
  const failed = lamps.filter(({ state, changed }) => state === 'failed' && changed.length === 0).length;
  const rest = lamps.length - seen - failed;
  return `${seen} of ${lamps.length} lamps proved by people who looked, ${failed} failed, ${rest} not known.`;
}

/** Parts that are not wanted are empty. */
export function proofContent(given: ProofGiven): ProofContent {
  const { records, patch, seq, at, parts } = given;
  const wants = new Set(parts);
  const only = <T>(part: ProofPart, made: () => readonly T[]): readonly T[] => (wants.has(part) ? made() : []);
  const all = lampsOf(given);
  const lamps = all.map(({ lamp }) => lamp);
  const places = new Map(records.place.map(({ id, name }) => [id, name]));
  const byPlace = new Map<string | null, ProvenLamp[]>();
  for (const { placeId, lamp } of all) byPlace.set(placeId, [...(byPlace.get(placeId) ?? []), lamp]);
  return {
    ...{ format: PROOF_FORMAT, version: 1, show: records.show[0]?.name ?? 'Show', seq, at },
    ...{ sentence: sentenceOf(lamps), parts },
    places: only('lamps', () =>
      [...byPlace].map(([id, its]) => ({ place: places.get(id ?? '') ?? 'No place', lamps: its })),
    ),
    failed: only('failed', () => failedOf(given)),
    notKnown: only('not known', () => notKnownOf(lamps, given)),
    nodes: only('nodes', () => nodesOf(given)),
    addresses: only('addresses', () =>
      records.machine.flatMap((machine) =>
        machine.interfaces.flatMap(({ name, addresses }) =>
          addresses.map(({ address, prefix }) => ({
            ...{ machine: machine.name, interface: name },
            address: address === '' ? 'by a server' : `${address}/${prefix}`,
          })),
        ),
      ),
    ),
    ports: only('ports', () =>
      records.machine.flatMap(({ name, ports }) =>
        ports
          .filter(({ use }) => use === 'out')
          .map((port) => ({
            ...{ node: name, port: port.number, carries: `universe ${port.universe}`, merge: MERGE_WORDS[port.merge] },
            ...{ loss: lossText(port.loss), start: START_WORDS[port.start] },
          })),
      ),
    ),
    universes: only('universes', () => universesOfShow(given)),
    pixels: only('pixels', () =>
      patch
        .all()
        .filter(({ run }) => run)
        .map(({ run, spans, lamp }) => ({
          ...{ run: `${lamp.number} ${lamp.name}`, pixels: run!.count },
          at: spans.map(({ universe, channel }) => `${universe}/${channel}`).join(', '),
          by: records.machine.find(({ id }) => id === run!.machineId)?.name ?? '',
        })),
    ),
    switches: only('switches', () =>
      patch
        .all()
        .filter(({ run, type }) => !run && type.answers !== 'yes')
        .flatMap((patched) => {
          const row = dipSwitches(patched.lamp.channel, DIP_USUAL);
          return row.ok
            ? [
                {
                  ...{ lamp: lampText(patched), channel: patched.lamp.channel },
                  row: row.value.map(({ on }) => (on ? '1' : '0')).join(''),
                },
              ]
            : [];
        }),
    ),
    whatIf: only('what if', () => given.failures.map((row) => ({ what: row.what, cost: costText(row) }))),
    differs: null,
    signed: null,
  };
}

/** The bytes that the checksum is over. */
export const proofJson = (content: ProofContent): string => `${JSON.stringify(content, null, 1)}\n`;
