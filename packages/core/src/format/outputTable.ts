/** The tables of all senders as one table, out and in (RFC 4180). */
import { formatWireToken, read, readWireToken, refuse, type Read } from '../address';
import { lineDifferences } from '../flow';
import { changed, countOf, type Plan, type PlanLine } from '../patch';
import { DELIVERIES, PLAIN_RANGE, checkRecord, type ShowRecords, type Source, type SourceRange } from '../show';
import { readTable, writeTable, type BadLine } from './table';

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

export const writeOutputTable = ({ source }: Pick<ShowRecords, 'source'>): string =>
  writeTable(
    HEADS,
    [...source]
      .sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }))
      .flatMap(({ name, ranges }) =>
        ranges.map((range) => [
          name,
          range.from,
          range.count,
          range.to ? formatWireToken(range.to) : 'as planned',
          range.interface,
          range.delivery,
          range.addresses.join(' '),
          range.rate,
          range.priority,
          yesNo(range.slotPriority),
          yesNo(range.on),
          yesNo(range.whenIdle),
          range.note,
        ]),
      ),
  );

export interface OutputTableRead {
  readonly plan: Read<Plan>;
  readonly bad: readonly BadLine[];
}

/** One row as a line of a sender's table; empty cells and absent columns are what a plain line has. */
function lineFrom(cell: (head: Head) => string): Read<SourceRange> {
  const number = (head: Head, plain: number) => (cell(head) === '' ? plain : Number(cell(head)));
  const flag = (head: Head, plain: boolean) => (cell(head) === '' ? plain : /^(y|yes|on|1|true)$/i.test(cell(head)));
  const where = cell('To').toLowerCase();
  const to = where === '' || where === 'as planned' ? read(null) : readWireToken(where.replace(/\s+/, '-'));
  if (!to.ok) return to;
  const delivery = cell('Delivery').toLowerCase() || PLAIN_RANGE.delivery;
  const found = DELIVERIES.find((one) => one === delivery);
  if (!found) return refuse(`Delivery “${cell('Delivery')}” is none of ${DELIVERIES.join(', ')}.`);
  return read({
    from: number('From', NaN),
    count: number('Count', 1),
    to: to.value,
    interface: cell('Interface'),
    delivery: found,
    addresses: cell('Addresses')
      .split(/[\s,;]+/)
      .filter(Boolean),
    rate: number('Rate', PLAIN_RANGE.rate),
    priority: number('Priority', PLAIN_RANGE.priority),
    slotPriority: flag('Slot priority', PLAIN_RANGE.slotPriority),
    on: flag('On', PLAIN_RANGE.on),
    whenIdle: flag('When idle', PLAIN_RANGE.whenIdle),
    note: cell('Note'),
  });
}

/** The lines of each sender that the table names take the place of those that it has; others are left alone. */
export function readOutputTable(text: string, { source }: Pick<ShowRecords, 'source'>): Read<OutputTableRead> {
  const table = readTable<Head>(text, ['Sender', 'From']);
  if (!table.ok) return table;
  const named = new Map(source.map((one) => [one.name.toLowerCase(), one]));
  const next = new Map<Source, SourceRange[]>();
  const bad: BadLine[] = [];
  for (const { line, cell } of table.value) {
    const its = named.get(cell('Sender').toLowerCase());
    const range = its ? lineFrom(cell) : refuse(`No sender of the show is called “${cell('Sender')}”.`);
    const checked = its && range.ok ? checkRecord('source', { ...its, ranges: [range.value] }) : undefined;
    if (!its || !range.ok || !checked?.ok) {
      bad.push({ line, why: !range.ok ? range.why : checked && !checked.ok ? checked.faults[0]!.why : '' });
      continue;
    }
    next.set(its, [...(next.get(its) ?? []), range.value]);
  }
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const [its, ranges] of next) {
    const differs = lineDifferences(its.name, its.ranges, ranges);
    if (differs.length === 0) continue;
    lines.push(...differs);
    changes.push(changed('source', its, { ...its, ranges }));
  }
  const plan: Read<Plan> =
    changes.length === 0
      ? refuse('Nothing would change.')
      : read({ sentence: `Took over a table of outputs for ${countOf(changes.length, 'sender')}`, changes, lines });
  return read({ plan, bad });
}
