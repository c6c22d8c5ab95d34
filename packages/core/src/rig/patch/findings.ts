/** Where lamps get in each other's way, or lie where they cannot work. */
import { formatAddress, type SlotAddress, SLOTS } from '../../base/address';
import { blocksOf } from '../fixture';
import type { FixtureType, Lamp, ShowRecords } from '../../show/records';
import { someLamps } from './someLamps';
import { lastChannel, type Patch, type PatchedLamp, type Span } from './patch';

export type FindingRule =
  /** Two lamps claim the same slots and are no twins. */
  | 'overlap'
  | 'past-end'
  | 'shared-number'
  | 'no-universe'
  /** An address block of the lamp's mode has no address, and others have. */
  | 'no-address'
  /** Lamps to which nobody has given an address yet. */
  | 'unaddressed'
  /** Lamps whose type is known by its name only. */
  | 'unknown-type'
  | 'run';

export interface PatchFinding {
  readonly rule: FindingRule;
  /** Ids of the lamps or runs that it is about */
  readonly subjects: readonly string[];
  /** Where it begins; undefined if it lies nowhere */
  readonly at: SlotAddress | undefined;
  readonly sentence: string;
}

const capitalised = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}`;

/** “Lamp 12”, or “Run 801” for pixels. */
export const nameOf = ({ lamp, run }: PatchedLamp): string => `${run ? 'Run' : 'Lamp'} ${lamp.number}`;

const areTwins = (one: Lamp, other: Lamp): boolean => one.twin !== null && one.twin === other.twin;

/** Overlaps within one universe; each span is reported with the one that reaches furthest into it. */
function* overlaps(spans: readonly Span[]): Generator<PatchFinding> {
  /** Those before it that may reach over the span at hand; only the first `count` are meant. */
  const active: Span[] = [];
  let count = 0;
  for (const span of spans) {
    let worst: Span | undefined;
    let kept = 0;
    for (let i = 0; i < count; i += 1) {
      const one = active[i]!;
      if (lastChannel(one) < span.channel) continue;
      active[kept] = one;
      kept += 1;
      if (
        one.patched !== span.patched &&
        !areTwins(one.patched.lamp, span.patched.lamp) &&
        (!worst || lastChannel(one) > lastChannel(worst))
      )
        worst = one;
    }
    if (worst) {
      const at = { universe: span.universe, channel: span.channel };
      const names = [nameOf(worst.patched), nameOf(span.patched)];
      yield {
        rule: 'overlap',
        subjects: [worst.patched.lamp.id, span.patched.lamp.id],
        at,
        sentence: `${names[0]} and ${names[1]!.toLowerCase()} overlap from ${formatAddress(at)}.`,
      };
    }
    active[kept] = span;
    count = kept + 1;
  }
}

function* pastEnd(spans: readonly Span[]): Generator<PatchFinding> {
  for (const span of spans) {
    const beyond = lastChannel(span) - SLOTS;
    if (beyond > 0)
      yield {
        rule: 'past-end',
        subjects: [span.patched.lamp.id],
        at: { universe: span.universe, channel: span.channel },
        sentence: `${nameOf(span.patched)} at ${formatAddress(span)} runs ${beyond} past channel ${SLOTS}.`,
      };
  }
}

function* sharedNumbers(patch: Patch): Generator<PatchFinding> {
  const { numbers } = patch;
  const all = patch.all();
  /** By number: place in the list of the first who has it, from 1 */
  const first = new Int32Array(numbers.reduce((most, number) => Math.max(most, number), 0) + 1);
  for (let i = 0; i < numbers.length; i += 1) {
    const number = numbers[i]!;
    const before = first[number]!;
    if (before === 0) {
      first[number] = i + 1;
      continue;
    }
    const [other, { lamp, spans }] = [all[before - 1]!, all[i]!];
    yield {
      rule: 'shared-number',
      subjects: [other.lamp.id, lamp.id],
      at: spans[0] && { universe: spans[0].universe, channel: spans[0].channel },
      sentence: `Number ${number} is shared by ${other.lamp.name} and ${lamp.name}.`,
    };
  }
}

function* withoutAddress(patch: Patch): Generator<PatchFinding> {
  const none = patch.incomplete.filter(({ spans }) => spans.length === 0);
  if (none.length > 0)
    yield {
      rule: 'unaddressed',
      subjects: none.map(({ lamp }) => lamp.id),
      at: undefined,
      sentence: `${capitalised(someLamps(none.map(({ lamp }) => lamp)))} ${none.length === 1 ? 'has' : 'have'} no address.`,
    };
  for (const patched of patch.incomplete) {
    if (patched.spans.length === 0) continue;
    const missing = blocksOf(patched.mode).findIndex(
      (length, i) => length > 0 && !patched.spans.some(({ block }) => block === i + 1),
    );
    yield {
      rule: 'no-address',
      subjects: [patched.lamp.id],
      at: undefined,
      sentence: `${nameOf(patched)} has no address for its block ${missing + 1}.`,
    };
  }
}

function* unknownTypes(patch: Patch): Generator<PatchFinding> {
  const waiting = new Map<FixtureType, Lamp[]>();
  for (const { lamp, type } of patch.all()) if (type.unknown) waiting.set(type, [...(waiting.get(type) ?? []), lamp]);
  for (const [type, lamps] of waiting)
    yield {
      rule: 'unknown-type',
      subjects: lamps.map(({ id }) => id),
      at: undefined,
      sentence: `${capitalised(someLamps(lamps))} ${lamps.length === 1 ? 'waits' : 'wait'} for the type “${type.name}”, of which only the name is known.`,
    };
}

function noUniverse(number: number, spans: readonly Span[]): PatchFinding {
  const [first] = spans;
  const more = new Set(spans.map(({ patched }) => patched)).size - 1;
  const others = more === 0 ? 'is' : more === 1 ? 'and one more are' : `and ${more} more are`;
  return {
    rule: 'no-universe',
    subjects: [...new Set(spans.map(({ patched }) => patched.lamp.id))],
    at: { universe: number, channel: first!.channel },
    sentence: `${nameOf(first!.patched)} ${others} in universe ${number}, which is not in the show.`,
  };
}

/** Everything that the patch alone can find, in time linear in the lamps. */
export function patchFindings(patch: Patch, universes: ShowRecords['universe']): PatchFinding[] {
  const known = new Set(universes.map(({ number }) => number));
  const findings: PatchFinding[] = [];
  for (const number of patch.universes()) {
    const spans = patch.universe(number);
    findings.push(...overlaps(spans), ...pastEnd(spans));
    if (!known.has(number)) findings.push(noUniverse(number, spans));
  }
  findings.push(...sharedNumbers(patch), ...withoutAddress(patch), ...unknownTypes(patch));
  for (const { run, sentence } of patch.runFaults)
    findings.push({ rule: 'run', subjects: [run.id], at: undefined, sentence });
  return findings;
}
