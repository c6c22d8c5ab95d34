/** What a sender sends, universe by universe, out of the lines of its table; and those lines changed. */
import { wireKey, type WireUniverse } from '../../base/address';
import type { PlanLine } from '../../show/edit';
import { PLAIN_LINE, type SendLine, type ShowRecords, type Universe } from '../../show/records';
import type { Sender } from './senders';

const lists = new WeakMap<readonly SendLine[], readonly number[]>();

/** What sends these lines: a sender, or part of one. */
type Lines = Pick<Sender, 'lines'>;

/** Show universes of the lines that are on, rising, each once; made once for each list of lines. */
export function universesOf({ lines }: Lines): readonly number[] {
  let list = lists.get(lines);
  if (!list) {
    const universes = new Set<number>();
    for (const { from, count, on } of lines) for (let i = 0; on && i < count; i += 1) universes.add(from + i);
    list = [...universes].sort((a, b) => a - b);
    lists.set(lines, list);
  }
  return list;
}

/** Planned senders by the show universe that they send. */
export function sendersByUniverse(senders: readonly Sender[]): Map<number, Sender[]> {
  const found = new Map<number, Sender[]>();
  for (const sender of senders)
    for (const universe of universesOf(sender)) {
      const there = found.get(universe);
      if (there) there.push(sender);
      else found.set(universe, [sender]);
    }
  return found;
}

const holds = ({ from, count }: SendLine, universe: number): boolean => universe >= from && universe < from + count;

/** The lines that are on and send a universe; more than one where it is sent in several ways. */
export const linesWith = ({ lines }: Lines, universe: number): readonly SendLine[] =>
  lines.filter((line) => line.on && holds(line, universe));

/** The highest priority at which a sender sends a universe; 0 if it does not. */
export const priorityOf = (sender: Lines, universe: number): number =>
  Math.max(0, ...linesWith(sender, universe).map(({ priority }) => priority));

/** Where a line puts a show universe; undefined if it follows a plan that the show does not have. */
export function sentTo(line: SendLine, universe: number, planned: Universe | undefined): WireUniverse | undefined {
  if (line.to) return { protocol: line.to.protocol, number: line.to.number + universe - line.from };
  return planned && { protocol: planned.protocol, number: planned.wire };
}

/** Whether a line sends its universes as the show plans them to travel. */
export function isAsPlanned(line: SendLine, universe: number, planned: Universe | undefined): boolean {
  const there = sentTo(line, universe, planned);
  return (
    there !== undefined &&
    planned !== undefined &&
    wireKey(there) === wireKey({ protocol: planned.protocol, number: planned.wire })
  );
}

/** The universes of a line: `9-13`. */
export const rangeText = ({ from, count }: Pick<SendLine, 'from' | 'count'>): string =>
  count === 1 ? String(from) : `${from}-${from + count - 1}`;

/** A line from some universe of it on. */
function tail(line: SendLine, from: number, count: number): SendLine {
  const to = line.to && { protocol: line.to.protocol, number: line.to.number + from - line.from };
  return { ...line, from, count, to };
}

/** Lines with one universe changed or, where `change` gives null, taken out; what stands around it stays. */
export function withUniverse(
  lines: readonly SendLine[],
  universe: number,
  change: (line: SendLine) => SendLine | null,
): SendLine[] {
  return lines.flatMap((line) => {
    if (!line.on || !holds(line, universe)) return [line];
    const changed = change(tail(line, universe, 1));
    const before = universe - line.from;
    const after = line.count - before - 1;
    return [
      ...(before > 0 ? [tail(line, line.from, before)] : []),
      ...(changed ? [changed] : []),
      ...(after > 0 ? [tail(line, universe + 1, after)] : []),
    ];
  });
}

/** Lines that send one universe more, at the priority of the others; a line that ends right before it grows. */
export function addUniverse(lines: readonly SendLine[], universe: number): readonly SendLine[] {
  const last = lines.findIndex(({ on, from, count }) => on && from + count === universe);
  if (last >= 0) return lines.map((line, i) => (i === last ? { ...line, count: line.count + 1 } : line));
  const priority = lines[0]?.priority ?? PLAIN_LINE.priority;
  return [...lines, { ...PLAIN_LINE, from: universe, priority }];
}

/** `sACN 9-13`; for Art-Net in both countings: `Art-Net 8-12 (9-13 counted from 1)`. */
export function wireRunText({ protocol, number }: WireUniverse, count: number): string {
  const run = (first: number) => rangeText({ from: first, count });
  return protocol === 'sacn' ? `sACN ${run(number)}` : `Art-Net ${run(number)} (${run(number + 1)} counted from 1)`;
}

/** Where a line goes, as its plan or the show's says: runs on the wire, in the order of the show universes. */
export function lineGoesTo(line: SendLine, planned: ReadonlyMap<number, Universe>): string {
  if (line.to) return wireRunText(line.to, line.count);
  const runs: { at: WireUniverse; count: number }[] = [];
  for (let i = 0; i < line.count; i += 1) {
    const at = sentTo(line, line.from + i, planned.get(line.from + i));
    const last = runs[runs.length - 1];
    if (!at) continue;
    if (last && last.at.protocol === at.protocol && last.at.number + last.count === at.number) last.count += 1;
    else runs.push({ at, count: 1 });
  }
  return runs.length === 0 ? 'nowhere' : runs.map(({ at, count }) => wireRunText(at, count)).join(', ');
}

/** Whether any universe of a line goes by sACN, and so has a priority. */
export function goesBySacn(line: SendLine, planned: ReadonlyMap<number, Universe>): boolean {
  if (line.to) return line.to.protocol === 'sacn';
  const there = Array.from({ length: line.count }, (_, i) => planned.get(line.from + i)?.protocol);
  return there.some((protocol) => protocol !== 'artnet');
}

const DELIVERY_WORDS: Readonly<Record<SendLine['delivery'], string>> = {
  usual: '',
  multicast: 'multicast',
  unicast: 'unicast',
  broadcast: 'broadcast',
};

/**
 * How a line is sent, beside where: `40 Hz, priority 100, unicast to 10.0.0.4, off`. `sacn` says whether any of it
 * goes by sACN: Art-Net has no priority.
 */
export const lineSays = (line: SendLine, sacn: boolean): string =>
  [
    `${line.rate} Hz`,
    sacn && `priority ${line.priority}${line.slotPriority ? ' and for each slot' : ''}`,
    line.delivery === 'unicast' ? `unicast to ${line.addresses.join(', ')}` : DELIVERY_WORDS[line.delivery],
    line.interface && `by ${line.interface}`,
    line.whenIdle ? '' : 'silent when idle',
    line.on ? '' : 'off',
    line.note,
  ]
    .filter(Boolean)
    .join(', ');

/** What differs between two tables of a sender, line by line; lines are matched by where they begin. */
export function lineDifferences(name: string, before: readonly SendLine[], after: readonly SendLine[]): PlanLine[] {
  const says = (line: SendLine) =>
    `${rangeText(line)} ${line.to ? `to ${wireRunText(line.to, line.count)}` : 'as planned'}, ${lineSays(line, line.to?.protocol !== 'artnet')}`;
  const subject = (line: SendLine) => `${name}, universes from ${line.from}`;
  const left = [...before];
  const lines: PlanLine[] = [];
  for (const line of after) {
    const same = left.findIndex((one) => says(one) === says(line));
    const there = same >= 0 ? same : left.findIndex(({ from }) => from === line.from);
    const was = there >= 0 ? left.splice(there, 1)[0] : undefined;
    if (!was) lines.push({ subject: subject(line), before: '', after: says(line) });
    else if (says(was) !== says(line)) lines.push({ subject: subject(line), before: says(was), after: says(line) });
  }
  return [...lines, ...left.map((line) => ({ subject: subject(line), before: says(line), after: '' }))];
}

/** Frames a second that every port of the show can carry, at most what DMX and its ports usually do. */
export function fittingRate({ machine, model }: Pick<ShowRecords, 'machine' | 'model'>): number {
  const models = new Map(model.map((one) => [one.id, one]));
  const rates = machine.flatMap(({ modelId, ports }) => {
    const its = modelId === null ? undefined : models.get(modelId);
    return its && ports.some(({ use }) => use === 'out') ? [its.rate] : [];
  });
  return Math.min(PLAIN_LINE.rate, ...rates);
}
