/**
 * Analysis by synthesis: each cause that is possible near the path is put into the world, the world is advanced, and
 * what it predicts is held against what was heard, said and seen. Two at once are tried where none alone explains all.
 */
import { fromWireKey, wireKey } from '../../base/address';
import { sightingKey, type Answer, type Sureness } from '../known';
import type { Subject } from '../../show/records';
import { observe, type Observed, type World } from '../simulate';
import { CAUSES } from './causes';
import type { Deviation } from './cause';
import type { Scene } from './scene';
import { Facts, factKey, weightOf, type Fact } from './fact';
import { comparable, factsOf } from './facts';

/** A possible cause with what speaks for and against it. */
export interface Suspect {
  readonly cause: string;
  readonly deviation: Deviation;
  readonly common: number;
  /** Facts that differ from the plan and that it explains */
  readonly explains: readonly Fact[];
  /** Facts that it leaves unexplained, or that it predicts and are not so */
  readonly leaves: readonly Fact[];
  readonly contradicted: readonly Fact[];
  readonly score: number;
  /** Among all that were tried, 0–1 */
  readonly share: number;
  /** What people would see if it were so */
  readonly answers: Observed['answers'];
}

export interface Judgement {
  readonly planned: Facts;
  readonly seen: Facts;
  /** Facts that differ from the plan */
  readonly amiss: readonly Fact[];
  /** The likeliest first; each of two that are there at once stands with the other */
  readonly suspects: readonly Suspect[];
  /** Ids of the suspects that together explain most, when no single one does */
  readonly together: readonly Suspect[];
  /** What is wrong is likelier something that no cause here tells of. */
  readonly other: boolean;
}

const UNEXPLAINED = 1.6;
const CONTRADICTED = 2.2;
/** Suspects of which every two are tried together */
const MOST_IN_PAIRS = 12;
/** Two faults at once are that much rarer than one. */
const PAIR = Math.log(0.15);

/** That something is wrong that no cause here tells of: it could be anything, and explains each fact less well than a cause that predicts it. */
const OTHER = Math.log(0.02);
const OTHER_EXPLAINS = 0.9;

/** A cause that is at least so likely, and that nothing speaks against, is certain; one that is likelier than not is likely. */
const CERTAIN = 0.9;
export const LIKELY = 0.5;

/** The second is at least so likely beside the first, where nothing but experience speaks for the first. */
const TIE = 0.5;
const same = (some: readonly Fact[], others: readonly Fact[]): boolean =>
  some.map(factKey).sort().join() === others.map(factKey).sort().join();

/** All that was observed fits the first two alike: neither is to be told without the other. */
export const isTie = ([first, second]: readonly Suspect[]): boolean =>
  first !== undefined &&
  second !== undefined &&
  second.share >= TIE * first.share &&
  same(first.explains, second.explains) &&
  same(first.contradicted, second.contradicted);

/** How sure a suspect is; of two that are there only together neither is certain, and of a tie nobody knows. */
export function surenessOf(suspects: readonly Suspect[], together: readonly Suspect[]): Sureness {
  if (together.length > 0) return 'likely';
  const { share, leaves, contradicted } = suspects[0]!;
  if (isTie(suspects)) return 'open';
  if (share >= CERTAIN && leaves.length === 0 && contradicted.length === 0) return 'certain';
  return share >= LIKELY ? 'likely' : 'open';
}

/** What is said of the first, and of what it ties with. */
export const saysOf = (suspects: readonly Suspect[]): string =>
  suspects
    .slice(0, isTie(suspects) ? 2 : 1)
    .map(({ deviation }) => deviation.says)
    .join(' Or: ');

const factOf = ({ about, question }: Answer): Fact => ({ kind: 'answer', about, question });

class Trial {
  readonly seen: Facts;
  readonly planned: Facts;
  readonly amiss: readonly Fact[];
  /** What was heard and said, without what people answered */
  private readonly now: Facts;
  private readonly answered: readonly Answer[];
  /** Wire keys that somebody is planned to send */
  private readonly plannedKeys: ReadonlySet<number>;

  constructor(private readonly scene: Scene) {
    const { near, world, whole, seen } = scene;
    this.plannedKeys = new Set(whole.senders.flatMap(({ streams }) => streams.map(({ wire }) => wireKey(wire))));
    this.now = factsOf(seen, near, whole);
    this.answered = [...seen.answers.values()].filter(({ about }) => this.isNear(about));
    this.seen = new Facts(this.now);
    for (const one of this.answered) this.seen.set(factOf(one), one.answer);
    this.planned = this.facts(observe(world));
    this.amiss = this.seen.differing(this.planned);
  }

  private isNear({ kind, id }: Subject): boolean {
    const { near } = this.scene;
    return kind === 'lamp'
      ? near.lamps.includes(id)
      : near.nodes.has(id) || near.senders.has(id) || near.visualisers.has(id);
  }

  /** sACN beside the plan comes here only if it was joined: that it is not heard then says nothing. */
  private mayBeUnheard(fact: Fact): boolean {
    if (fact.kind !== 'stream' || this.seen.has(fact)) return false;
    const { wire } = fact;
    if (fromWireKey(wire).protocol !== 'sacn' || this.plannedKeys.has(wire)) return false;
    return !this.scene.seen.besides || !(this.plannedKeys.has(wire - 1) || this.plannedKeys.has(wire + 1));
  }

  /** What is observed in a world, and what people who were asked would see in it. */
  private facts(observed: Observed): Facts {
    const { near, whole } = this.scene;
    const facts = comparable(factsOf(observed, near, whole), this.now, whole);
    for (const one of this.answered) {
      const says = observed.answers.get(sightingKey(one.about, one.question));
      if (says) facts.set(factOf(one), says.answer);
    }
    return facts;
  }

  /** What a changed world predicts, beside what there is. */
  hold(world: World): Pick<Suspect, 'explains' | 'leaves' | 'contradicted' | 'answers'> & { readonly cost: number } {
    const observed = observe(world);
    const predicted = this.facts(observed);
    const explains: Fact[] = [];
    const leaves: Fact[] = [];
    const contradicted: Fact[] = [];
    let cost = 0;
    for (const fact of this.amiss) {
      if (predicted.get(fact) === this.seen.get(fact)) explains.push(fact);
      else {
        leaves.push(fact);
        cost += UNEXPLAINED * weightOf(fact);
      }
    }
    for (const fact of predicted.differing(this.planned))
      if (this.planned.get(fact) === this.seen.get(fact) && !this.mayBeUnheard(fact)) {
        contradicted.push(fact);
        cost += CONTRADICTED * weightOf(fact);
      }
    return { explains, leaves, contradicted, answers: observed.answers, cost };
  }
}

export function judge(scene: Scene): Judgement {
  const trial = new Trial(scene);
  const { planned, seen, amiss } = trial;
  if (amiss.length === 0) return { planned, seen, amiss, suspects: [], together: [], other: false };
  const tried: Suspect[] = [];
  for (const { id, common, find } of CAUSES)
    for (const deviation of find(scene)) {
      const { cost, ...held } = trial.hold(deviation.change(scene.world));
      if (held.explains.length === 0) continue;
      tried.push({ cause: id, deviation, common, ...held, score: Math.log(common) - cost, share: 0 });
    }
  tried.sort((a, b) => b.score - a.score);
  const together = pairs(scene, trial, tried);
  const otherScore = OTHER - OTHER_EXPLAINS * amiss.reduce((sum, fact) => sum + weightOf(fact), 0);
  const best = Math.max(tried[0]?.score ?? -Infinity, together[0]?.score ?? -Infinity);
  return { planned, seen, amiss, suspects: shared(tried, otherScore), together, other: otherScore > best };
}

/** What one explains, to be compared */
const explainsOf = ({ explains }: Suspect): string => explains.map(factKey).join();

/** The two that explain more together than any one alone; none where one is enough. */
function pairs(scene: Scene, trial: Trial, tried: readonly Suspect[]): Suspect[] {
  const [first] = tried;
  if (!first || (first.leaves.length === 0 && first.contradicted.length === 0)) return [];
  // Of those that explain the same the likeliest goes along: other pairs are found by what the rest explains.
  const chosen: Suspect[] = [];
  for (const one of tried) {
    if (chosen.length >= MOST_IN_PAIRS) break;
    if (!chosen.some((other) => explainsOf(other) === explainsOf(one))) chosen.push(one);
  }
  let best: { score: number; both: [Suspect, Suspect] } | undefined;
  for (const [i, one] of chosen.entries())
    for (const other of chosen.slice(i + 1)) {
      const { cost, leaves, contradicted } = trial.hold(other.deviation.change(one.deviation.change(scene.world)));
      const score = Math.log(one.common) + Math.log(other.common) + PAIR - cost;
      if (score > first.score && (!best || score > best.score)) {
        const part = (suspect: Suspect): Suspect => ({ ...suspect, leaves, contradicted, score });
        best = { score, both: one.score >= other.score ? [part(one), part(other)] : [part(other), part(one)] };
      }
    }
  return best?.both ?? [];
}

/** How likely each is among all that were tried, and something else beside them. */
function shared(tried: readonly Suspect[], other: number): Suspect[] {
  const top = tried[0]?.score ?? 0;
  const all = tried.reduce((sum, { score }) => sum + Math.exp(score - top), Math.exp(other - top));
  return tried.map((one) => ({ ...one, share: Math.exp(one.score - top) / all }));
}
