/** What a person does to the universes of a show: added, renumbered, sent by another protocol, deleted. */
import {
  formatUniverses,
  formatWire,
  isAddressed,
  lastWireNumber,
  type Protocol,
  SHOW_UNIVERSE_LAST,
  wireKey,
} from '../../base/address';
import { added, changed, countOf, type Plan, type PlanLine, type ProposedChange, removed } from '../../show/edit';
import { checkRecord, type AnyRecord, type Kind, type ShowRecords, type Universe } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';

const subjectOf = ({ number, name }: Universe): string => `Universe ${number} ${name}`.trim();
const wireOf = ({ protocol, wire }: Universe): string => formatWire({ protocol, number: wire });

const plural = (count: number): string => (count === 1 ? 'universe' : 'universes');

/** What stands between a plan of universes and being written: a broken rule, or two that are one on the wire. */
function faultOf(after: readonly Universe[], touched: ReadonlySet<string>): string | undefined {
  const numbers = new Map<number, Universe>();
  const wires = new Map<number, Universe>();
  for (const universe of after) {
    if (touched.has(universe.id)) {
      const checked = checkRecord('universe', universe);
      if (!checked.ok) return `Universe ${universe.number}: ${checked.why}`;
    }
    const key = wireKey({ protocol: universe.protocol, number: universe.wire });
    const [sameNumber, sameWire] = [numbers.get(universe.number), wires.get(key)];
    const involved = (other: Universe) => touched.has(universe.id) || touched.has(other.id);
    if (sameNumber && involved(sameNumber)) return `The show would have universe ${universe.number} twice.`;
    if (sameWire && involved(sameWire))
      return `Universes ${sameWire.number} and ${universe.number} would both be ${wireOf(universe)}.`;
    numbers.set(universe.number, universe);
    wires.set(key, universe);
  }
  return undefined;
}

export interface NewUniverses {
  /** Show numbers, rising */
  readonly numbers: readonly number[];
  readonly protocol: Protocol;
  /** Of the first on the wire; the others lie as far from it as their numbers do */
  readonly wire: number;
  /** `#` stands for the universe's number; may be empty */
  readonly pattern: string;
  readonly merge: Universe['merge'];
}

/** Adds universes to the show; refused if one is there already or would be another one's on the wire. */
export function addUniverses(
  { universe }: Pick<ShowRecords, 'universe'>,
  { numbers, protocol, wire, pattern, merge }: NewUniverses,
  newId: () => string,
): Result<Plan> {
  const [first] = numbers;
  if (first === undefined) return refuse('nothing', 'Say which universes: 1-8, or 1-8, 12.');
  const fresh = numbers.map((number): Universe => ({
    id: newId(),
    rev: 0,
    number,
    name: pattern.replaceAll('#', String(number)).trim(),
    protocol,
    wire: wire + number - first,
    merge,
  }));
  const fault = faultOf([...universe, ...fresh], new Set(fresh.map(({ id }) => id)));
  if (fault !== undefined) return refuse('not-possible', fault);
  return ok({
    sentence: `Added ${numbers.length === 1 ? 'universe' : 'universes'} ${formatUniverses(numbers)}`,
    changes: fresh.map((one) => added('universe', one)),
    lines: fresh.map((one) => ({ subject: subjectOf(one), before: '', after: wireOf(one) })),
  });
}

const chosen = (universe: readonly Universe[], numbers: readonly number[]): Universe[] => {
  const wanted = new Set(numbers);
  return universe.filter(({ number }) => wanted.has(number)).sort((a, b) => a.number - b.number);
};

/** Changes many universes, each told by what `says` of it. */
function changeAll(
  { universe }: ShowRecords,
  numbers: readonly number[],
  change: (one: Universe) => Universe,
  says: (one: Universe) => string,
  sentence: string,
): Result<Plan> {
  const pairs = chosen(universe, numbers).flatMap((before) => {
    const after = change(before);
    return says(before) === says(after) ? [] : [[before, after] as const];
  });
  if (pairs.length === 0) return refuse('nothing', 'Nothing would change.');
  const changes = new Map(pairs.map(([before, after]) => [before.id, after]));
  const fault = faultOf(
    universe.map((one) => changes.get(one.id) ?? one),
    new Set(changes.keys()),
  );
  if (fault !== undefined) return refuse('not-possible', fault);
  return ok({
    sentence: `${sentence} ${plural(pairs.length)} ${formatUniverses(pairs.map(([{ number }]) => number))}`,
    changes: pairs.map(([before, after]) => changed('universe', before, after)),
    lines: pairs.map(([before, after]) => ({ subject: subjectOf(before), before: says(before), after: says(after) })),
  });
}

/** The number by which the other protocol would call a universe first if both count from their first: sACN 1 is Art-Net 0. */
export const counterpart = (from: Protocol, wire: number, to: Protocol): number =>
  from === to ? wire : to === 'artnet' ? wire - 1 : wire + 1;

/**
 * Sends universes by a protocol. With `first` they lie on the wire from there, as far apart as their numbers;
 * without it each keeps its place, counted as the protocol counts.
 */
export function setWires(
  records: ShowRecords,
  numbers: readonly number[],
  protocol: Protocol,
  first: number | undefined,
): Result<Plan> {
  const [lowest] = chosen(records.universe, numbers);
  const wireFor = (one: Universe) =>
    first === undefined ? counterpart(one.protocol, one.wire, protocol) : first + one.number - lowest!.number;
  const beyond = chosen(records.universe, numbers).find((one) => wireFor(one) > lastWireNumber(protocol));
  if (beyond)
    return refuse(
      'out-of-range',
      `Universe ${beyond.number} would lie beyond ${lastWireNumber(protocol)}, the last one.`,
    );
  return changeAll(
    records,
    numbers,
    (one) => ({ ...one, protocol, wire: wireFor(one) }),
    wireOf,
    'Changed the wire numbers of',
  );
}

export const setMerge = (records: ShowRecords, numbers: readonly number[], merge: Universe['merge']): Result<Plan> =>
  changeAll(
    records,
    numbers,
    (one) => ({ ...one, merge }),
    (one) => one.merge,
    'Changed the merge of',
  );

export const nameUniverses = (records: ShowRecords, numbers: readonly number[], pattern: string): Result<Plan> =>
  changeAll(
    records,
    numbers,
    (one) => ({ ...one, name: pattern.replaceAll('#', String(one.number)).trim() }),
    (one) => one.name,
    'Named',
  );

/** A run of numbers of which some have become others, as runs again; `offset` is how far each run's first lay in it. */
function movedRuns(
  from: number,
  count: number,
  move: (number: number) => number,
): { from: number; count: number; offset: number }[] {
  const runs: { from: number; count: number; offset: number }[] = [];
  for (let offset = 0; offset < count; offset += 1) {
    const number = move(from + offset);
    const last = runs[runs.length - 1];
    if (last && last.from + last.count === number) last.count += 1;
    else runs.push({ from: number, count: 1, offset });
  }
  return runs;
}

type Moving = { readonly [K in Kind]?: (record: never, move: (number: number) => number) => AnyRecord | string };

/** How each kind of record follows universes that get other numbers; a sentence where it cannot. */
const FOLLOW = {
  lamp: (lamp: ShowRecords['lamp'][number], move) => ({
    ...lamp,
    universe: isAddressed(lamp) ? move(lamp.universe) : 0,
    blocks: lamp.blocks.map((block) => (isAddressed(block) ? { ...block, universe: move(block.universe) } : block)),
  }),
  run: (run: ShowRecords['run'][number], move) => ({
    ...run,
    start: run.start.kind === 'at' ? { ...run.start, universe: move(run.start.universe) } : run.start,
  }),
  machine: (machine: ShowRecords['machine'][number], move) => {
    const { controller } = machine;
    const runs = controller ? movedRuns(controller.firstUniverse, controller.universes, move) : [];
    if (runs.length > 1)
      return `${machine.name} takes ${controller!.universes} universes from ${controller!.firstUniverse} on, in a row: renumber all of them together.`;
    return {
      ...machine,
      ports: machine.ports.map((port) => ({ ...port, universe: move(port.universe) })),
      controller: controller && { ...controller, firstUniverse: runs[0]!.from },
      sends: machine.sends && {
        ...machine.sends,
        lines: machine.sends.lines.flatMap((line) =>
          movedRuns(line.from, line.count, move).map(({ from, count, offset }) => ({
            ...line,
            from,
            count,
            to: line.to && { ...line.to, number: line.to.number + offset },
          })),
        ),
      },
    };
  },
  link: (link: ShowRecords['link'][number], move) => ({
    ...link,
    lines: link.lines.flatMap((line) =>
      movedRuns(line.from, line.count, move).map(({ from, count, offset }) => ({ from, count, to: line.to + offset })),
    ),
  }),
  control: (control: ShowRecords['control'][number], move) => ({
    ...control,
    target:
      control.target.kind === 'universe' ? { ...control.target, number: move(control.target.number) } : control.target,
  }),
} satisfies Moving;

/**
 * Gives universes other numbers in the show, from `first` on and as far apart as before; lamps, runs, ports,
 * controllers, senders, links and the input map follow. What is on the wire stays as it is.
 */
export function renumberUniverses(records: ShowRecords, numbers: readonly number[], first: number): Result<Plan> {
  const moving = chosen(records.universe, numbers);
  const [lowest] = moving;
  if (!lowest) return refuse('nothing', 'None of these universes is in the show.');
  const shift = first - lowest.number;
  if (shift === 0) return refuse('nothing', 'Nothing would change.');
  if (!Number.isInteger(first) || first < 1 || moving[moving.length - 1]!.number + shift > SHOW_UNIVERSE_LAST)
    return refuse('out-of-range', `Universes run from 1 to ${SHOW_UNIVERSE_LAST}.`);
  const target = new Map(moving.map(({ number }) => [number, number + shift]));
  const stays = new Set(records.universe.map(({ number }) => number).filter((number) => !target.has(number)));
  const taken = [...target.values()].filter((number) => stays.has(number));
  if (taken.length > 0)
    return refuse('taken', `The show has ${plural(taken.length)} ${formatUniverses(taken)} already.`);
  const move = (number: number) => target.get(number) ?? number;
  const changes: ProposedChange[] = moving.map((one) =>
    changed('universe', one, { ...one, number: one.number + shift }),
  );
  const follows: PlanLine[] = [];
  for (const kind of Object.keys(FOLLOW) as (keyof typeof FOLLOW)[]) {
    const follow = FOLLOW[kind] as (record: AnyRecord, move: (number: number) => number) => AnyRecord | string;
    let count = 0;
    for (const record of records[kind]) {
      const after = follow(record, move);
      if (typeof after === 'string') return refuse('not-possible', after);
      if (JSON.stringify(after) === JSON.stringify(record)) continue;
      changes.push(changed(kind, record, after));
      count += 1;
    }
    if (count > 0) follows.push({ subject: FOLLOWERS[kind](count), before: 'as before', after: 'follow' });
  }
  return ok({
    sentence: `Renumbered ${plural(moving.length)} ${formatUniverses(numbers)} from ${first} on`,
    changes,
    lines: [
      ...moving.map((one) => ({
        subject: subjectOf(one),
        before: String(one.number),
        after: String(one.number + shift),
      })),
      ...follows,
    ],
  });
}

const FOLLOWERS: Readonly<Record<keyof typeof FOLLOW, (count: number) => string>> = {
  lamp: (count) => countOf(count, 'lamp'),
  run: (count) => countOf(count, 'run of pixels', 'runs of pixels'),
  machine: (count) => `Ports and senders of ${countOf(count, 'machine')}`,
  link: (count) => countOf(count, 'link'),
  control: (count) => countOf(count, 'channel of the input map', 'channels of the input map'),
};

/** What stands on a universe of the show, in words; empty if nothing does. */
export function usesOf(records: ShowRecords, number: number, spans: number): string[] {
  const inRun = (from: number, count: number) => number >= from && number < from + count;
  const uses: string[] = [];
  const tell = (count: number, words: string) => count > 0 && uses.push(words);
  tell(spans, countOf(spans, 'lamp or run', 'lamps or runs'));
  for (const { name, ports, sends, controller } of records.machine) {
    const its = ports.filter(({ use, universe }) => (use === 'out' || use === 'in') && universe === number).length;
    tell(its, `${countOf(its, 'port')} of ${name}`);
    tell(sends?.lines.filter((line) => inRun(line.from, line.count)).length ?? 0, `what ${name} sends`);
    tell(controller && inRun(controller.firstUniverse, controller.universes) ? 1 : 0, `what ${name} takes`);
  }
  for (const { name, lines } of records.link)
    tell(lines.filter(({ from, count }) => inRun(from, count)).length, `the link ${name}`);
  for (const { name, target } of records.control)
    tell(target.kind === 'universe' && target.number === number ? 1 : 0, `${name} of the input map`);
  return uses;
}

/** Deletes universes; refused, with what stands there, while one of them is used. `spansOn` counts lamps and runs. */
export function deleteUniverses(
  records: ShowRecords,
  numbers: readonly number[],
  spansOn: (universe: number) => number,
): Result<Plan> {
  const going = chosen(records.universe, numbers);
  if (going.length === 0) return refuse('nothing', 'None of these universes is in the show.');
  for (const { number } of going) {
    const uses = usesOf(records, number, spansOn(number));
    if (uses.length > 0)
      return refuse(
        'not-possible',
        `Universe ${number} is used by ${uses.slice(0, 3).join(', ')}${uses.length > 3 ? ` and ${uses.length - 3} more` : ''}.`,
      );
  }
  return ok({
    sentence: `Deleted ${plural(going.length)} ${formatUniverses(going.map(({ number }) => number))}`,
    changes: going.map((one) => removed('universe', one)),
    lines: going.map((one) => ({ subject: subjectOf(one), before: wireOf(one), after: '' })),
  });
}
