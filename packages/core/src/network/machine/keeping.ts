/** Settings kept and given on: starting points, snapshots, and their files. */
import { ok, refuse, type Result } from '../../base/result';
import { added, changed, countOf, type Plan, type PlanLine } from '../../show/edit';
import { checkRecord, type Machine, type MachinePort, type Model, type Snapshot } from '../../show/records';
import { plainPort, portDifferences, whyNot } from './ports';

/** Settings for a common job, made for as many ports as a box has. */
export interface StartingPoint {
  readonly name: string;
  readonly about: string;
  readonly ports: (count: number, firstUniverse: number) => MachinePort[];
}

const each = (count: number, make: (number: number) => MachinePort): MachinePort[] =>
  Array.from({ length: count }, (_, i) => make(i + 1));

export const STARTING_POINTS: readonly StartingPoint[] = [
  {
    name: 'One console, sACN',
    about: 'All ports out, one universe each in a row; the last look stays when signal is lost.',
    ports: (count, first) => each(count, (n) => ({ ...plainPort(n, first + n - 1), merge: 'none' })),
  },
  {
    name: 'One console, Art-Net',
    about: 'As above, by Art-Net.',
    ports: (count, first) => each(count, (n) => ({ ...plainPort(n, first + n - 1, 'artnet'), merge: 'none' })),
  },
  {
    name: 'Console and backup',
    about: 'sACN out; the higher priority wins, so that the backup takes over by itself.',
    ports: (count, first) => each(count, (n) => ({ ...plainPort(n, first + n - 1), merge: 'priority' })),
  },
  {
    name: 'Two desks together',
    about: 'sACN out; of two senders the higher value wins.',
    ports: (count, first) => each(count, (n) => plainPort(n, first + n - 1)),
  },
  {
    name: 'Audience nearby',
    about: 'Fades to black in 3 s when signal was lost for 5 s; black at the start.',
    ports: (count, first) =>
      each(count, (n) => ({
        ...plainPort(n, first + n - 1),
        loss: { kind: 'fade', after: 5, over: 3 },
        start: 'black',
      })),
  },
  {
    name: 'A DMX desk comes in',
    about: 'Port 1 in, at priority 80; the others out.',
    ports: (count, first) =>
      each(count, (n) => ({ ...plainPort(n, first + n - 1), ...(n === 1 && { use: 'in' as const, priority: 80 }) })),
  },
  {
    name: 'All ports off',
    about: 'Nothing leaves the box.',
    ports: (count, first) => each(count, (n) => ({ ...plainPort(n, first + n - 1), use: 'off' })),
  },
];

export const snapshotOf = (machine: Machine, id: string, name: string, at: string, about = ''): Snapshot => ({
  id,
  rev: 0,
  name,
  at,
  machineId: machine.id,
  about,
  ports: machine.ports,
});

/** Description of a snapshot that a push makes of how a node was before it. */
export const KEPT_BY_ITSELF = 'Kept by itself';

export const keepSnapshot = (snapshot: Snapshot): Plan => ({
  sentence: `Kept ${countOf(snapshot.ports.length, 'port')} as “${snapshot.name}”`,
  changes: [added('snapshot', snapshot)],
  lines: [{ subject: snapshot.name, before: '', after: countOf(snapshot.ports.length, 'port') }],
});

/** A plan for some machines, and why others are left as they are. */
export interface Applied {
  readonly plan: Result<Plan>;
  readonly left: readonly { readonly machine: Machine; readonly why: string }[];
}

/**
 * Gives the ports of `settings` to machines. A machine whose model cannot do all of it is left as it
 * is, with the reason; ports beyond those that a machine has are left out.
 */
export function applySettings(
  name: string,
  settings: (machine: Machine) => readonly MachinePort[],
  machines: readonly Machine[],
  models: ReadonlyMap<string, Model>,
): Applied {
  const left: { machine: Machine; why: string }[] = [];
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const machine of machines) {
    const model = machine.modelId === null ? undefined : models.get(machine.modelId);
    const wanted = settings(machine);
    const most = model?.ports ?? Infinity;
    const given = new Map(wanted.filter(({ number }) => number <= most).map((port) => [port.number, port]));
    const why = model && [...given.values()].flatMap((port) => whyNot(model, port))[0];
    if (why !== undefined) {
      left.push({ machine, why });
      continue;
    }
    const ports = [
      ...machine.ports.map((port) => given.get(port.number) ?? port),
      ...[...given.values()].filter(({ number }) => !machine.ports.some((port) => port.number === number)),
    ].sort((a, b) => a.number - b.number);
    const differs = portDifferences(machine.name, machine.ports, ports);
    if (differs.length === 0) continue;
    lines.push(...differs);
    changes.push(changed('machine', machine, { ...machine, ports }));
  }
  const plan =
    changes.length === 0
      ? refuse('nothing', 'Nothing would change.')
      : ok({ sentence: `Gave “${name}” to ${countOf(changes.length, 'machine')}`, changes, lines });
  return { plan, left };
}

export const SNAPSHOT_FORMAT = 'taxiarch-node-settings';

/** Kept settings as a file that other shows can read. */
export const writeSnapshot = ({ name, about, at, ports }: Snapshot): string =>
  JSON.stringify({ format: SNAPSHOT_FORMAT, version: 1, name, about, at, ports }, null, 1);

export function readSnapshot(text: string, id: string): Result<Snapshot> {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return refuse('not-understood', 'This is no JSON document, or it is cut short.');
  }
  const file = parsed as { format?: unknown; version?: unknown } & Partial<Snapshot>;
  if (typeof file !== 'object' || file === null || file.format !== SNAPSHOT_FORMAT)
    return refuse('not-understood', 'These are no settings of a node kept by Taxiarch: the file does not say so.');
  if (file.version !== 1)
    return refuse('not-understood', 'These settings are of a newer version than this Taxiarch reads.');
  const { name, about = '', at, ports } = file;
  const snapshot = { id, rev: 0, name, about, at, ports, machineId: null };
  const checked = checkRecord('snapshot', snapshot);
  return checked.ok ? ok(checked.value as Snapshot) : refuse('not-understood', checked.why);
}
