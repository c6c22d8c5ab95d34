/** What is wrong with whole cables, and lamps that are in each other’s way, by what the roll call heard. */
import { integer, listOf, report, word, words, type ReportOf } from '../../base/field';
import type { RollRow } from './row';
import type { RollNow, RollPort, SeenLamp } from './seen';

export const portTrouble = report('PortTrouble', {
  key: words('By which it can be left alone.'),
  kind: word(['cut', 'ragged', 'collision', 'off']),
  machineId: words(),
  portNumber: integer(),
  says: words(),
  mend: words('What to do.'),
  uids: listOf(words(), 'Of the lamps that it is about.'),
});

export interface PortTrouble extends ReportOf<typeof portTrouble.fields> {}

/** Of a healthy cable fewer answers are lost than this part. */
const RAGGED = 0.04;
/** Fewer requests say nothing about it. */
const ENOUGH = 20;
/** So many missing of one cable are the cable's fault rather than theirs. */
const MANY = 3;

const of = (port: RollPort) => ({ machineId: port.machineId, portNumber: port.number });
const name = ({ name: node, number }: RollPort): string => `port ${number} of ${node}`;

function ragged(port: RollPort): PortTrouble[] {
  if (port.asked < ENOUGH || port.lost / port.asked < RAGGED) return [];
  const part = Math.round((port.lost / port.asked) * 100);
  return [
    {
      ...of(port),
      key: `ragged ${port.address} ${port.portAddress}`,
      kind: 'ragged',
      says: `${part} % of the answers on ${name(port)} are lost.`,
      mend: 'Look for the terminator at the end of its cable, and for a bad plug on the way.',
      uids: [],
    },
  ];
}

/** Rows of lamps that are planned on one port and nowhere else, in the order of their addresses: as cables are mostly laid. */
function cut(port: RollPort, rows: readonly RollRow[]): PortTrouble[] {
  const its = rows.filter(
    (row) => row.lampId !== '' && row.machineId === port.machineId && row.portNumber === port.number,
  );
  const gone = its.filter(({ state }) => state === 'missing');
  const there = its.filter(({ seen }) => seen !== null);
  if (gone.length < MANY || port.state !== 'asked') return [];
  const all = there.length === 0;
  // With a cut cable all behind a point are gone, and nobody before it.
  const first = Math.min(...gone.map(({ number }) => number));
  const behind = all || there.every(({ number }) => number < first);
  if (!behind && gone.length < its.length / 2) return [];
  const where = all
    ? `None of the ${gone.length} lamps on ${name(port)} answers`
    : `${gone.length} of ${its.length} lamps on ${name(port)} do not answer${behind ? `, all from ${first} on` : ''}`;
  return [
    {
      ...of(port),
      key: `cut ${port.address} ${port.portAddress}`,
      kind: 'cut',
      says: `${where}.`,
      mend: all
        ? 'Look whether its cable is plugged in at the node and at the first lamp.'
        : `Look at the cable before the first that is silent${behind ? `, lamp ${first}` : ''}, and at its power.`,
      uids: [],
    },
  ];
}

/** Lamps on one port whose slots overlap. */
function collisions(
  port: RollPort,
  seen: readonly SeenLamp[],
  rows: readonly RollRow[],
  twin: (uid: string) => string,
): PortTrouble[] {
  const placed = seen
    .filter(
      ({ address, portAddress, says, startAddress }) =>
        address === port.address && portAddress === port.portAddress && says === 'all' && startAddress !== null,
    )
    .sort((a, b) => a.startAddress! - b.startAddress!);
  const found: PortTrouble[] = [];
  const called = (uid: string) => {
    const row = rows.find((one) => one.uid === uid);
    return row && row.number > 0 ? `${row.number} ${row.name}` : (row?.name ?? uid);
  };
  placed.forEach((one, i) => {
    const last = one.startAddress! + one.slots - 1;
    for (const other of placed.slice(i + 1)) {
      if (other.startAddress! > last) break;
      const word = twin(one.uid);
      if (word !== '' && word === twin(other.uid) && other.startAddress === one.startAddress) continue;
      found.push({
        ...of(port),
        key: `collision ${one.uid} ${other.uid}`,
        kind: 'collision',
        says: `${called(one.uid)} and ${called(other.uid)} both listen to channel ${other.startAddress} on ${name(port)}.`,
        mend: 'Set one of them as planned, or make them twins in the plan if they are to do the same.',
        uids: [one.uid, other.uid],
      });
    }
  });
  return found;
}

function off(port: RollPort): PortTrouble[] {
  if (port.state !== 'off') return [];
  return [
    {
      ...of(port),
      key: `off ${port.address} ${port.portAddress}`,
      kind: 'off',
      says: `The RDM of ${name(port)} is off, so its lamps cannot be asked.`,
      mend: 'Switch it on.',
      uids: [],
    },
  ];
}

export function troubles(rows: readonly RollRow[], now: RollNow, twin: (uid: string) => string): PortTrouble[] {
  return now.ports.flatMap((port) => [
    ...off(port),
    ...cut(port, rows),
    ...ragged(port),
    ...collisions(port, now.seen, rows, twin),
  ]);
}
