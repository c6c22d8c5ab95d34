/** Tables of the network: addresses out, and the ports of all machines out and in (RFC 4180). */
import { protocolName } from '../../base/address';
import { ok, refuse, type Result } from '../../base/result';
import { addressSheet } from '../../network/ip';
import { plainPort, portDifferences } from '../../network/machine';
import { changed, countOf, type Plan, type PlanLine } from '../../show/edit';
import {
  checkRecord,
  LOSS_KINDS,
  type Machine,
  type MachinePort,
  PORT_MERGES,
  PORT_USES,
  type ShowRecords,
  START_UPS,
} from '../../show/records';
import { type BadLine, readTable, type TableContent, tableOf } from './table';

export const addressTable = (records: ShowRecords): TableContent =>
  tableOf(
    ['Machine', 'Kind', 'Model', 'Place', 'Interface', 'Hardware address', 'Address', 'Mask', 'Comes by'],
    addressSheet(records).map(({ name, kind, model, place, iface, mac, address, mask, way }) => [
      name,
      kind,
      model,
      place,
      iface,
      mac,
      address,
      mask,
      way,
    ]),
  );

const HEADS = [
  'Machine',
  'Port',
  'Use',
  'Protocol',
  'Universe',
  'Label',
  'Fixed',
  'Rate',
  'RDM',
  'Copy of',
  'Merge',
  'Signal lost',
  'After s',
  'Over s',
  'Start',
  'Priority',
] as const;
type Head = (typeof HEADS)[number];

export const portTable = ({ machine }: Pick<ShowRecords, 'machine'>): TableContent =>
  tableOf(
    HEADS,
    [...machine]
      .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
      .flatMap(({ name, ports }) =>
        ports.map((port) => [
          name,
          port.number,
          port.use,
          protocolName(port.protocol),
          port.universe,
          port.label,
          port.fixed,
          port.rate,
          port.rdm ? 'on' : 'off',
          port.copyOf ?? '',
          port.merge,
          port.loss.kind,
          port.loss.after,
          port.loss.over,
          port.start,
          port.priority,
        ]),
      ),
  );

export interface PortTableRead {
  readonly plan: Result<Plan>;
  readonly bad: readonly BadLine[];
}

/** One row onto the port that is there; empty cells and absent columns leave it as it is. */
function portFrom(cell: (head: Head) => string, there: MachinePort): Result<MachinePort> {
  const word = <T extends string>(head: Head, of: readonly T[], now: T): Result<T> => {
    const text = cell(head).toLowerCase();
    if (text === '') return ok(now);
    const found = of.find((one) => one === text);
    return found ? ok(found) : refuse('not-understood', `${head} “${cell(head)}” is none of ${of.join(', ')}.`);
  };
  const number = (head: Head, now: number): Result<number> => {
    const text = cell(head).replace(',', '.');
    if (text === '') return ok(now);
    return Number.isFinite(Number(text))
      ? ok(Number(text))
      : refuse('not-understood', `${head} “${cell(head)}” is no number.`);
  };
  const protocol = cell('Protocol')
    .toLowerCase()
    .replace(/[^a-z]/g, '');
  if (protocol !== '' && protocol !== 'sacn' && protocol !== 'artnet')
    return refuse('not-understood', `Protocol “${cell('Protocol')}” is neither sACN nor Art-Net.`);
  const parts = {
    use: word('Use', PORT_USES, there.use),
    universe: number('Universe', there.universe),
    fixed: number('Fixed', there.fixed),
    rate: number('Rate', there.rate),
    merge: word('Merge', PORT_MERGES, there.merge),
    kind: word('Signal lost', LOSS_KINDS, there.loss.kind),
    after: number('After s', there.loss.after),
    over: number('Over s', there.loss.over),
    start: word('Start', START_UPS, there.start),
    priority: number('Priority', there.priority),
    rdm: word('RDM', ['on', 'off'], there.rdm ? 'on' : 'off'),
  };
  for (const part of Object.values(parts)) if (!part.ok) return part;
  const value = <T>(part: Result<T>): T => (part as { value: T }).value;
  const copy = cell('Copy of');
  return ok({
    ...there,
    use: value(parts.use),
    protocol: protocol === '' ? there.protocol : protocol,
    universe: value(parts.universe),
    label: cell('Label') || there.label,
    fixed: value(parts.fixed),
    rate: value(parts.rate),
    rdm: value(parts.rdm) === 'on',
    copyOf: copy === '' ? there.copyOf : Number(copy) || null,
    merge: value(parts.merge),
    loss: { kind: value(parts.kind), after: value(parts.after), over: value(parts.over) },
    start: value(parts.start),
    priority: value(parts.priority),
  });
}

/** A table of ports as a plan; lines that make no sense are left out and told. */
export function readPortTable(text: string, { machine }: Pick<ShowRecords, 'machine'>): Result<PortTableRead> {
  const table = readTable<Head>(text, ['Machine', 'Port']);
  if (!table.ok) return table;
  const named = new Map(machine.map((one) => [one.name.toLowerCase(), one]));
  const next = new Map<Machine, Map<number, MachinePort>>();
  const bad: BadLine[] = [];
  for (const { line, cell } of table.value) {
    const its = named.get(cell('Machine').toLowerCase());
    const number = Number(cell('Port'));
    const leaveOut = (why: string) => bad.push({ line, why });
    if (!its) {
      leaveOut(`No machine of the show is called “${cell('Machine')}”.`);
      continue;
    }
    if (!Number.isInteger(number) || number < 1) {
      leaveOut(`“${cell('Port')}” is no port.`);
      continue;
    }
    const ports = next.get(its) ?? new Map(its.ports.map((port) => [port.number, port]));
    next.set(its, ports);
    const port = portFrom(cell, ports.get(number) ?? plainPort(number, 1));
    if (!port.ok) {
      leaveOut(port.why);
      continue;
    }
    const checked = checkRecord('machine', { ...its, ports: [port.value] });
    if (checked.ok) ports.set(number, port.value);
    else leaveOut(checked.why);
  }
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const [its, byNumber] of next) {
    const ports = [...byNumber.values()].sort((a, b) => a.number - b.number);
    const differs = portDifferences(its.name, its.ports, ports);
    if (differs.length === 0) continue;
    lines.push(...differs);
    changes.push(changed('machine', its, { ...its, ports }));
  }
  const plan: Result<Plan> =
    changes.length === 0
      ? refuse('nothing', 'Nothing would change.')
      : ok({ sentence: `Took over a table of ports for ${countOf(changes.length, 'machine')}`, changes, lines });
  return ok({ plan, bad });
}
