/** The tables of all senders as one table, out and in (RFC 4180). */
import { formatWireToken, readWireToken } from '../../base/address';
import { ok, refuse, type Result } from '../../base/result';
import { changedLines, lineDifferences, sendersOf, withLines, type Sender } from '../../network/flow';
import { countOf, type Plan, type PlanLine } from '../../show/edit';
import { checkRecord, DELIVERIES, PLAIN_LINE, type SendLine, type ShowRecords } from '../../show/records';
import { type BadLine, readTable, type TableContent, tableOf } from './table';

const HEADS = [
  'Sender',
  'From',
  'Count',
  'To',
  'Interface',
  'Delivery',
  'Addresses',
  'Rate',
  'Priority',
  'Slot priority',
  'On',
  'When idle',
  'Note',
] as const;
type Head = (typeof HEADS)[number];

const yesNo = (yes: boolean) => (yes ? 'yes' : 'no');

export const outputTable = ({ machine }: Pick<ShowRecords, 'machine'>): TableContent =>
  tableOf(
    HEADS,
    [...sendersOf(machine)]
      .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
      .flatMap(({ name, lines }) =>
        lines.map((line) => [
          name,
          line.from,
          line.count,
          line.to ? formatWireToken(line.to) : 'as planned',
          line.interface,
          line.delivery,
          line.addresses.join(' '),
          line.rate,
          line.priority,
          yesNo(line.slotPriority),
          yesNo(line.on),
          yesNo(line.whenIdle),
          line.note,
        ]),
      ),
  );

export interface OutputTableRead {
  readonly plan: Result<Plan>;
  readonly bad: readonly BadLine[];
}

/** One row as a line of a sender's table; empty cells and absent columns are what a plain line has. */
function lineFrom(cell: (head: Head) => string): Result<SendLine> {
  const number = (head: Head, plain: number) => (cell(head) === '' ? plain : Number(cell(head)));
  const flag = (head: Head, plain: boolean) => (cell(head) === '' ? plain : /^(y|yes|on|1|true)$/i.test(cell(head)));
  const where = cell('To').toLowerCase();
  const to = where === '' || where === 'as planned' ? ok(null) : readWireToken(where.replace(/\s+/, '-'));
  if (!to.ok) return to;
  const delivery = cell('Delivery').toLowerCase() || PLAIN_LINE.delivery;
  const found = DELIVERIES.find((one) => one === delivery);
  if (!found) return refuse('not-understood', `Delivery “${cell('Delivery')}” is none of ${DELIVERIES.join(', ')}.`);
  return ok({
    from: number('From', NaN),
    count: number('Count', 1),
    to: to.value,
    interface: cell('Interface'),
    delivery: found,
    addresses: cell('Addresses')
      .split(/[\s,;]+/)
      .filter(Boolean),
    rate: number('Rate', PLAIN_LINE.rate),
    priority: number('Priority', PLAIN_LINE.priority),
    slotPriority: flag('Slot priority', PLAIN_LINE.slotPriority),
    on: flag('On', PLAIN_LINE.on),
    whenIdle: flag('When idle', PLAIN_LINE.whenIdle),
    note: cell('Note'),
  });
}

/** The lines of each sender that the table names take the place of those that it has; others are left alone. */
export function readOutputTable(text: string, { machine }: Pick<ShowRecords, 'machine'>): Result<OutputTableRead> {
  const table = readTable<Head>(text, ['Sender', 'From']);
  if (!table.ok) return table;
  const named = new Map(sendersOf(machine).map((one) => [one.name.toLowerCase(), one]));
  const next = new Map<Sender, SendLine[]>();
  const bad: BadLine[] = [];
  for (const { line, cell } of table.value) {
    const its = named.get(cell('Sender').toLowerCase());
    const read = its ? lineFrom(cell) : refuse('not-found', `No sender of the show is called “${cell('Sender')}”.`);
    const checked = its && read.ok ? checkRecord('machine', withLines(its.machine, [read.value])) : undefined;
    if (!its || !read.ok || !checked?.ok) {
      bad.push({ line, why: !read.ok ? read.why : checked && !checked.ok ? checked.why : '' });
      continue;
    }
    next.set(its, [...(next.get(its) ?? []), read.value]);
  }
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const [its, sent] of next) {
    const differs = lineDifferences(its.name, its.lines, sent);
    if (differs.length === 0) continue;
    lines.push(...differs);
    changes.push(changedLines(its, sent));
  }
  const plan: Result<Plan> =
    changes.length === 0
      ? refuse('nothing', 'Nothing would change.')
      : ok({ sentence: `Imported a table of outputs for ${countOf(changes.length, 'sender')}`, changes, lines });
  return ok({ plan, bad });
}
