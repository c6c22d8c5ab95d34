/** One practice: what was planted, what was found and how, what was asked for, and the mark at its end. */
import type { Fault, Hand } from '../fault';
import type { Subject } from '../../show/records';
import type { FoundFault, Mark, PracticeEnd, PracticeNow } from './reports';
import type { Hardness } from './night';

/** Beside the first for each */
const MOST_HINTS = 3;
const HINT_COSTS = 10;
const WRONG_COSTS = 5;
/** Screens remembered */
const MOST_SCREENS = 400;

interface Planted {
  readonly fault: Fault;
  found: { readonly how: 'named' | 'mended'; readonly at: number } | undefined;
  hints: number;
}

/** Times are milliseconds since 1970. */
export interface PracticeSetup {
  readonly number: number;
  readonly hard: Hardness;
  readonly by: string;
  readonly began: number;
}

/** What is said of the machine a stand-in stands for; empty for one that nobody planned */
export type NameOf = (machineId: string) => string;

const machineOf = ({ id }: Hand): string => `machine-${id}`;

/** How the place where a fault is noticed is called. */
const placeText = ({ kind, id, part }: Subject, nameOf: NameOf): string =>
  kind === 'universe'
    ? `universe ${id}`
    : kind === 'port'
      ? `port ${part} of ${nameOf(id)}`
      : kind === 'link'
        ? `the link ${nameOf(id)}`
        : nameOf(id);

/**
 * Whether what a person points at is where a fault is, or where it is noticed. What nobody planned has no name: an
 * address that is heard, or nothing at all, stands for it.
 */
const isAt = ({ at, hands }: Fault, { kind, id }: Subject, nameOf: NameOf): boolean =>
  (kind === at.kind && id === at.id) ||
  hands.some(
    (hand) =>
      machineOf(hand) === id ||
      (nameOf(machineOf(hand)) === '' && (kind === 'stream' || kind === 'machine') && nameOf(id) === ''),
  );

/** Whether a value is another than one that was planted; of an object, in something that was planted. */
function differs(value: unknown, planted: unknown): boolean {
  if (typeof value !== 'object' || typeof planted !== 'object' || value === null || planted === null)
    return value !== planted;
  const [now, then] = [value, planted] as Readonly<Record<string, unknown>>[];
  return Object.keys(then!).some((key) => key in now! && differs(now![key], then![key]));
}

/** Whether a hand takes back what another did. What was turned is mended by pushing, where it is read back. */
const takesBack = (hand: Hand, planted: Hand): boolean =>
  hand.id === planted.id &&
  Object.keys(planted).some((key) => key !== 'id' && key !== 'turn' && key in hand && differs(hand[key], planted[key]));

const secondsBetween = (from: number, to: number): number => Math.max(0, Math.round((to - from) / 1000));

export class Practice {
  private readonly planted: readonly Planted[];
  private readonly hinted: string[] = [];
  private readonly screens: { readonly at: number; readonly screen: string }[] = [];
  private wrong = 0;
  private ended: number | undefined;

  constructor(
    private readonly setup: PracticeSetup,
    faults: readonly Fault[],
    private readonly nameOf: NameOf,
  ) {
    this.planted = faults.map((fault) => ({ fault, found: undefined, hints: 0 }));
  }

  get isOver(): boolean {
    return this.ended !== undefined || this.planted.every(({ found }) => found);
  }

  private find(which: (fault: Fault) => boolean, how: 'named' | 'mended', now: number): boolean {
    let any = false;
    for (const one of this.planted) {
      if (one.found || !which(one.fault)) continue;
      one.found = { how, at: now };
      any = true;
    }
    return any;
  }

  /** A person says what is wrong; true if it is so. */
  name(about: Subject, cause: string, now: number): boolean {
    const right = this.find((fault) => isAt(fault, about, this.nameOf) && fault.causes.includes(cause), 'named', now);
    if (!right) this.wrong += 1;
    return right;
  }

  /** The plan was pushed to a machine, which took it: what had been turned at it is as planned again. */
  pushed(machineId: string, now: number): void {
    this.find(
      ({ hands }) => hands.every((hand) => 'turn' in hand) && hands.some((hand) => machineOf(hand) === machineId),
      'mended',
      now,
    );
  }

  /** A hand did something to a stand-in: what it had been given by the same hand is mended. */
  handled(hand: Hand, now: number): void {
    this.find(({ hands }) => hands.length === 1 && takesBack(hand, hands[0]!), 'mended', now);
  }

  looked(screen: string, now: number): void {
    if (this.screens.length < MOST_SCREENS && this.screens.at(-1)?.screen !== screen)
      this.screens.push({ at: now, screen });
  }

  /** The next hint for what is not found yet, each plainer than the one before; undefined when all is said. */
  hint(): string | undefined {
    const open = this.planted
      .filter(({ found, hints }) => !found && hints < MOST_HINTS)
      .sort((a, b) => a.hints - b.hints)[0];
    if (!open) return undefined;
    open.hints += 1;
    const { at, hands, says } = open.fault;
    const where = hands.map((hand) => this.nameOf(machineOf(hand)) || 'something that nobody planned');
    const text = [
      `Something is noticed at ${placeText(at, this.nameOf)}.`,
      `It lies with ${[...new Set(where)].join(' and ')}, and is noticed at ${placeText(at, this.nameOf)}.`,
      `${says}.`,
    ][open.hints - 1]!;
    this.hinted.push(text);
    return text;
  }

  end(now: number): void {
    this.ended ??= now;
  }

  private get count(): number {
    return this.planted.length;
  }

  now(): PracticeNow {
    const { number, hard, by, began } = this.setup;
    return {
      number,
      hard,
      by,
      began,
      count: this.count,
      found: this.planted.flatMap(({ fault, found }) =>
        found ? [{ says: `${fault.says}.`, how: found.how, after: secondsBetween(began, found.at) }] : [],
      ),
      hints: [...this.hinted],
      wrong: this.wrong,
    };
  }

  /** What was wrong, what was found and after how long, and which screens told it. */
  report(now: number): PracticeEnd {
    const { number, hard, by, began } = this.setup;
    const over = this.ended ?? now;
    const faults = this.planted.map(({ fault, found, hints }): FoundFault => ({
      says: `${fault.says}.`,
      how: found?.how ?? 'not found',
      after: found ? secondsBetween(began, found.at) : null,
      hints,
      about: fault.at,
      screens: found ? this.screensBefore(found.at) : [],
    }));
    const found = faults.filter(({ how }) => how !== 'not found');
    const mark: Mark = {
      by,
      at: new Date(over).toISOString(),
      number,
      hard,
      count: this.count,
      found: found.length,
      seconds:
        found.length === this.count ? Math.max(...found.map(({ after }) => after!)) : secondsBetween(began, over),
      hints: this.hinted.length,
      wrong: this.wrong,
      points: pointsOf(found.length, this.count, this.hinted.length, this.wrong),
    };
    return { mark, faults };
  }

  /** What was looked at since the find before, and last of all where this was found. */
  private screensBefore(at: number): string[] {
    const before = Math.max(
      -Infinity,
      ...this.planted.flatMap(({ found }) => (found && found.at < at ? found.at : [])),
    );
    const seen = this.screens.filter((one) => one.at <= at);
    const since = seen.filter((one) => one.at > before);
    return (since.length > 0 ? since : seen.slice(-1)).map(({ screen }) => screen);
  }
}

/** 0–100: what was found of all, less what hints and wrong names cost. */
export const pointsOf = (found: number, count: number, hints: number, wrong: number): number =>
  Math.max(0, Math.round((100 * found) / Math.max(1, count)) - HINT_COSTS * hints - WRONG_COSTS * wrong);
