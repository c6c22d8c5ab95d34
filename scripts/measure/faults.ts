/**
 * The bench of faults: each is planted on the running demo by the hands of its stand-ins, Why? is asked where a person
 * would notice it, its questions are answered as a person would see it there, and what it names is held against what
 * was planted.
 */
import type { StandingReport, WhyReport } from '@taxiarch/core/truth/known';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { FAULTS, LAMP_FAULTS, random, type Fault, type Hand, type LampFault } from '@taxiarch/core/truth/fault';
import type { RollReply } from '@taxiarch/core/truth/roll';
import { areApart } from '@taxiarch/core/truth/practise';
import type { Subject } from '@taxiarch/core/show/records';
import { wait, type Extent, type Figure } from './figure';
import { PANEL, base, withServer, withStandIns } from './server';

/** A person waits no longer before asking. */
const LONGEST_MS = 5000;
const ASK_EVERY_MS = 500;
const SETTLE_MS = 12_000;
const MOST_QUESTIONS = 3;
/** As many as are wanted: `TAXIARCH_PAIRS=20 TAXIARCH_QUIET_S=60 npm run measure -- faults`; or some only, by their ids. */
const ONLY = process.env['TAXIARCH_ONLY']?.split(',');
const PAIRS = Number(process.env['TAXIARCH_PAIRS'] ?? 200);
const QUIET_MS = 1000 * Number(process.env['TAXIARCH_QUIET_S'] ?? 600);

async function send(path: string, body: unknown): Promise<unknown> {
  const response = await fetch(`${base}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return response.json();
}

async function get<T>(path: string): Promise<T> {
  const response = await fetch(`${base}${path}`);
  if (!response.ok) throw new Error(`${path}: ${await response.text()}`);
  return (await response.json()) as T;
}

const handle = (hand: Hand) => send('/api/stand-ins/handle', hand);
const ask = ({ kind, id, part }: Subject) =>
  get<WhyReport>(`/api/why?kind=${kind}&id=${encodeURIComponent(id)}&part=${encodeURIComponent(part)}`);
const stand = () => get<StandingReport>('/api/standing');

/** Answers what is asked as a person would see it; returns how many answers were given. */
async function answers(fault: Fault, first: WhyReport): Promise<{ why: WhyReport; given: number }> {
  let why = first;
  let given = 0;
  for (; given < MOST_QUESTIONS && why.question; given += 1) {
    const { about, question } = why.question;
    const answer = fault.sees[[about.kind, about.id, about.part, question].filter(Boolean).join(' ')];
    if (answer === undefined) break;
    const id = `seen-${Date.now()}-${given}`;
    const after = { id, rev: 0, about, question, answer, by: 'Bench', at: new Date().toISOString() };
    const changes = [{ kind: 'sighting', id, rev: null, after }];
    await send('/api/edits', { author: 'Bench', sentence: 'Looked', changes });
    why = await ask(fault.at);
  }
  return { why, given };
}

/** What was answered on the way counts for that fault only. */
async function forgetAll(): Promise<void> {
  const { records } = await get<ShowReply>('/api/show');
  const changes = records.sighting.map(({ id, rev }) => ({ kind: 'sighting', id, rev, after: null }));
  if (changes.length > 0) await send('/api/edits', { author: 'Bench', sentence: 'Forgot what was seen', changes });
}

/** Everything as it was shipped, and nothing left to say of what was. */
async function calm(): Promise<boolean> {
  await handle({ id: 'all', reset: true });
  const end = Date.now() + 40_000;
  for (let well = 0; Date.now() < end;) {
    const { troubles, unexplained } = await stand();
    well = troubles.length + unexplained.length === 0 ? well + 1 : 0;
    if (well === 2) return true;
    await wait(ASK_EVERY_MS);
  }
  return false;
}

interface Outcome {
  readonly fault: Fault;
  readonly first: boolean;
  readonly amongThree: boolean;
  readonly ms: number;
  readonly asked: number;
  /** Something affected still stood as fine */
  readonly falseGreen: boolean;
  readonly named: string;
}

const isOfLamp = (fault: Fault | LampFault): fault is LampFault => 'asks' in fault;

/** Asks the lamps of some ports, or of all, until it is known how they are set. */
async function callRoll(ports?: LampFault['asks']): Promise<void> {
  await fetch(`${base}/api/roll/call`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...(ports && { ports }), afresh: true }),
  });
  for (;;) {
    const { progress } = await get<RollReply>('/api/roll');
    if (!progress.running) return;
    await wait(100);
  }
}

async function tryFault(fault: Fault | LampFault): Promise<Outcome> {
  for (const hand of fault.hands) await handle(hand);
  if (isOfLamp(fault)) await callRoll(fault.asks);
  const began = Date.now();
  const right = (cause: string | undefined) => cause !== undefined && fault.causes.includes(cause);
  let why = await ask(fault.at);
  let ms = LONGEST_MS;
  let given = 0;
  while (Date.now() - began < LONGEST_MS) {
    const answered = await answers(fault, why);
    given += answered.given;
    why = answered.why;
    if (right(why.suspects[0]?.cause)) {
      ms = Date.now() - began;
      break;
    }
    await wait(ASK_EVERY_MS);
    why = await ask(fault.at);
  }
  const { troubles, unexplained } = await stand();
  await forgetAll();
  return {
    fault,
    first: right(why.suspects[0]?.cause),
    amongThree: why.suspects.slice(0, 3).some(({ cause }) => right(cause)),
    ms,
    asked: given,
    falseGreen: why.sure === 'as planned' || troubles.length + unexplained.length === 0,
    named: why.suspects
      .slice(0, 3)
      .map(({ cause }) => cause)
      .join(', '),
  };
}

/** What a person would mend first: the first of what stands against opening, and the first answer where each is noticed. */
async function namedFirst(left: readonly Fault[]): Promise<string[]> {
  const { troubles } = await stand();
  const whys: WhyReport[] = [];
  for (const fault of left) whys.push((await answers(fault, await ask(fault.at))).why);
  return [...troubles.slice(0, 1), ...whys.flatMap(({ suspects }) => suspects.slice(0, 1))].map(({ cause }) => cause);
}

/** Two at once: whether both are named within two repairs, each of which mends what was named before it. */
async function tryPair(one: Fault, other: Fault): Promise<boolean> {
  for (const hand of [...one.hands, ...other.hands]) await handle(hand);
  let left = [one, other];
  for (let repairs = 0; repairs < 2 && left.length > 0; repairs += 1) {
    const end = Date.now() + LONGEST_MS;
    let found: Fault | undefined;
    while (!found && Date.now() < end) {
      const named = await namedFirst(left);
      found = left.find(({ causes }) => causes.some((cause) => named.includes(cause)));
      if (!found) await wait(ASK_EVERY_MS);
    }
    if (!found) return false;
    for (const { id } of found.hands) await handle({ id, reset: true });
    left = left.filter((fault) => fault !== found);
  }
  return left.length === 0;
}

const share = (part: number, of: number): string =>
  `${((100 * part) / Math.max(1, of)).toFixed(1)} % (${part} of ${of})`;

export const measure = (extent: Extent): Promise<Figure[]> =>
  withStandIns(() =>
    withServer(['--bench-port', String(PANEL)], async () => {
      await wait(extent.of(SETTLE_MS, SETTLE_MS));
      await get<ShowReply>('/api/show');
      const figures: Figure[] = [];
      const chosen: readonly (Fault | LampFault)[] = [...FAULTS, ...LAMP_FAULTS].filter(
        ({ id }, i) => ONLY?.includes(id) ?? (!extent.short || i % 12 === 0),
      );
      const outcomes: Outcome[] = [];
      const noise: string[] = [];
      for (const fault of chosen) {
        if (!(await calm())) noise.push(`before ${fault.id}`);
        const outcome = await tryFault(fault);
        outcomes.push(outcome);
        // What lamps said meanwhile is asked again, once all is as it was shipped.
        if (isOfLamp(fault)) {
          await handle({ id: 'rig', reset: true });
          await callRoll(fault.asks);
        }
        if (!outcome.first || outcome.falseGreen)
          process.stdout.write(
            `  ${fault.id}: ${outcome.named || 'nothing named'}${outcome.falseGreen ? ', FALSE GREEN' : ''}\n`,
          );
      }
      const many = outcomes.length;
      const times = outcomes
        .filter(({ first }) => first)
        .map(({ ms }) => ms)
        .sort((a, b) => a - b);
      const count = (which: (one: Outcome) => boolean) => outcomes.filter(which).length;
      figures.push(
        {
          figure: `${many} faults planted one by one: named first`,
          asked: 'at least 95 %',
          seen: `${share(
            count(({ first }) => first),
            many,
          )}, half of them within ${((times[times.length >> 1] ?? 0) / 1000).toFixed(1)} s; ${outcomes.reduce((sum, { asked }) => sum + asked, 0)} questions answered`,
          met: count(({ first }) => first) >= 0.95 * many,
        },
        {
          figure: 'named among three',
          asked: '100 %',
          seen: share(
            count(({ amongThree }) => amongThree),
            many,
          ),
          met: count(({ amongThree }) => amongThree) === many,
        },
        {
          figure: 'false greens: something affected still stood as fine',
          asked: '0',
          seen: String(count(({ falseGreen }) => falseGreen)),
          met: count(({ falseGreen }) => falseGreen) === 0,
        },
      );
      const seed = Number(process.env['TAXIARCH_SEED'] ?? 20_261_126);
      const next = random(seed);
      const pairs = extent.of(PAIRS, 2);
      let both = 0;
      for (let i = 0; i < pairs; i += 1) {
        await calm();
        await forgetAll();
        const one = FAULTS[Math.floor(next() * FAULTS.length)]!;
        const others = FAULTS.filter((fault) => areApart(fault, one));
        const other = others[Math.floor(next() * others.length)]!;
        if (await tryPair(one, other)) both += 1;
        else process.stdout.write(`  pair ${one.id} + ${other.id}: not both\n`);
      }
      figures.push({
        figure: `${pairs} pairs of faults at random, seed ${seed}: both named within two repairs`,
        asked: 'at least 85 %',
        seen: share(both, pairs),
        met: both >= 0.85 * pairs,
      });
      await calm();
      const end = Date.now() + extent.of(QUIET_MS, 5000);
      let alarms = 0;
      let looks = 0;
      while (Date.now() < end) {
        const { troubles, unexplained } = await stand();
        looks += 1;
        if (troubles.length + unexplained.length > 0) {
          alarms += 1;
          process.stdout.write(`  alarm: ${troubles.map(({ says }) => says).join(' ')} ${unexplained.join(', ')}\n`);
        }
        await wait(1000);
      }
      figures.push({
        figure: `${Math.round(extent.of(QUIET_MS, 5000) / 1000)} s with no fault: false alarms`,
        asked: '0',
        seen: `${alarms} of ${looks} looks`,
        met: alarms === 0,
      });
      if (noise.length > 0) process.stdout.write(`  not calm ${noise.join(', ')}\n`);
      return figures;
    }),
  );
