/** What a sender sends, universe by universe, out of the lines of its table; and those lines changed. */
import { wireKey, type WireUniverse } from '../address';
import type { PlanLine } from '../patch';
import { PLAIN_RANGE, type Source, type SourceRange, type Universe } from '../show';

const lists = new WeakMap<Source, readonly number[]>();

/** Show universes of the lines that are on, rising, each once; made once for each source. */
export function universesOf(source: Source): readonly number[] {
  let list = lists.get(source);
  if (!list) {
    const universes = new Set<number>();
    for (const { from, count, on } of source.ranges) for (let i = 0; on && i < count; i += 1) universes.add(from + i);
    list = [...universes].sort((a, b) => a - b);
    lists.set(source, list);
  }
  return list;
}

/** Planned sources by the show universe that they send. */
export function sendersByUniverse(sources: readonly Source[]): Map<number, Source[]> {
  const senders = new Map<number, Source[]>();
  for (const source of sources)
    for (const universe of universesOf(source)) {
      const there = senders.get(universe);
      if (there) there.push(source);
      else senders.set(universe, [source]);
    }
  return senders;
}

const holds = ({ from, count }: SourceRange, universe: number): boolean => universe >= from && universe < from + count;

/** The lines that are on and send a universe; more than one where it is sent in several ways. */
export const rangesWith = (source: Source, universe: number): readonly SourceRange[] =>
  source.ranges.filter((range) => range.on && holds(range, universe));

/** The highest priority at which a source sends a universe; 0 if it does not. */
export const priorityOf = (source: Source, universe: number): number =>
  Math.max(0, ...rangesWith(source, universe).map(({ priority }) => priority));

/** Where a line puts a show universe; undefined if it follows a plan that the show does not have. */
export function sentTo(range: SourceRange, universe: number, planned: Universe | undefined): WireUniverse | undefined {
  if (range.to) return { protocol: range.to.protocol, number: range.to.number + universe - range.from };
  return planned && { protocol: planned.protocol, number: planned.wire };
}

/** Whether a line sends its universes as the show plans them to travel. */
export function isAsPlanned(range: SourceRange, universe: number, planned: Universe | undefined): boolean {
  const there = sentTo(range, universe, planned);
  return (
    there !== undefined &&
    planned !== undefined &&
    wireKey(there) === wireKey({ protocol: planned.protocol, number: planned.wire })
  );
}

/** The universes of a line: `9-13`. */
export const rangeText = ({ from, count }: Pick<SourceRange, 'from' | 'count'>): string =>
  count === 1 ? String(from) : `${from}-${from + count - 1}`;

/** A line from some universe of it on. */
function tail(range: SourceRange, from: number, count: number): SourceRange {
  const to = range.to && { protocol: range.to.protocol, number: range.to.number + from - range.from };
  return { ...range, from, count, to };
}

/** Lines with one universe changed or, where `change` gives null, taken out; what stands around it stays. */
export function withUniverse(
  source: Source,
  universe: number,
  change: (range: SourceRange) => SourceRange | null,
): Source {
  const ranges = source.ranges.flatMap((range) => {
    if (!range.on || !holds(range, universe)) return [range];
    const changed = change(tail(range, universe, 1));
    const before = universe - range.from;
    const after = range.count - before - 1;
    return [
      ...(before > 0 ? [tail(range, range.from, before)] : []),
      ...(changed ? [changed] : []),
      ...(after > 0 ? [tail(range, universe + 1, after)] : []),
    ];
  });
  return { ...source, ranges };
}

/** A sender that sends one universe more, at the priority of its other lines; a line that ends right before it grows. */
export function addUniverse(source: Source, universe: number): Source {
  const last = source.ranges.findIndex(({ on, from, count }) => on && from + count === universe);
  if (last >= 0)
    return {
      ...source,
      ranges: source.ranges.map((range, i) => (i === last ? { ...range, count: range.count + 1 } : range)),
    };
  const priority = source.ranges[0]?.priority ?? PLAIN_RANGE.priority;
  return { ...source, ranges: [...source.ranges, { ...PLAIN_RANGE, from: universe, priority }] };
}

/** `sACN 9-13`; for Art-Net in both countings: `Art-Net 8-12 (9-13 counted from 1)`. */
export function wireRunText({ protocol, number }: WireUniverse, count: number): string {
  const run = (first: number) => rangeText({ from: first, count });
  return protocol === 'sacn' ? `sACN ${run(number)}` : `Art-Net ${run(number)} (${run(number + 1)} counted from 1)`;
}

/** Where a line goes, as its plan or the show's says: runs on the wire, in the order of the show universes. */
export function lineGoesTo(range: SourceRange, planned: ReadonlyMap<number, Universe>): string {
  if (range.to) return wireRunText(range.to, range.count);
  const runs: { at: WireUniverse; count: number }[] = [];
  for (let i = 0; i < range.count; i += 1) {
    const at = sentTo(range, range.from + i, planned.get(range.from + i));
    const last = runs[runs.length - 1];
    if (!at) continue;
    if (last && last.at.protocol === at.protocol && last.at.number + last.count === at.number) last.count += 1;
    else runs.push({ at, count: 1 });
  }
  return runs.length === 0 ? 'nowhere' : runs.map(({ at, count }) => wireRunText(at, count)).join(', ');
}

const DELIVERY_WORDS: Readonly<Record<SourceRange['delivery'], string>> = {
  usual: '',
  multicast: 'multicast',
  unicast: 'unicast',
  broadcast: 'broadcast',
};

/** How a line is sent, beside where: `40 Hz, priority 100, unicast to 10.0.0.4, off`. */
export const lineSays = (range: SourceRange): string =>
  [
    `${range.rate} Hz`,
    `priority ${range.priority}${range.slotPriority ? ' and for each slot' : ''}`,
    range.delivery === 'unicast' ? `unicast to ${range.addresses.join(', ')}` : DELIVERY_WORDS[range.delivery],
    range.interface && `by ${range.interface}`,
    range.whenIdle ? '' : 'silent when idle',
    range.on ? '' : 'off',
    range.note,
  ]
    .filter(Boolean)
    .join(', ');

/** What differs between two tables of a sender, line by line; lines are matched by where they begin. */
export function lineDifferences(
  name: string,
  before: readonly SourceRange[],
  after: readonly SourceRange[],
): PlanLine[] {
  const says = (range: SourceRange) =>
    `${rangeText(range)} ${range.to ? `to ${wireRunText(range.to, range.count)}` : 'as planned'}, ${lineSays(range)}`;
  const subject = (range: SourceRange) => `${name}, universes from ${range.from}`;
  const left = [...before];
  const lines: PlanLine[] = [];
  for (const range of after) {
    const same = left.findIndex((one) => says(one) === says(range));
    const there = same >= 0 ? same : left.findIndex(({ from }) => from === range.from);
    const was = there >= 0 ? left.splice(there, 1)[0] : undefined;
    if (!was) lines.push({ subject: subject(range), before: '', after: says(range) });
    else if (says(was) !== says(range)) lines.push({ subject: subject(range), before: says(was), after: says(range) });
  }
  return [...lines, ...left.map((range) => ({ subject: subject(range), before: says(range), after: '' }))];
}
