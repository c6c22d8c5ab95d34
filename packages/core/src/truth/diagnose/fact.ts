/** One thing that is observed: what it is about, and which of its traits. It has a value in what is heard, said and seen. */
import type { Protocol } from '../../base/address';
import type { Subject } from '../../show/records';
import { sightingKey } from '../known';

export type Fact =
  /** Anything is heard of it at all. */
  | { readonly kind: 'hears'; readonly what: Protocol | 'nodes' }
  /** A sender on a wire; `wire`: wire key */
  | { readonly kind: 'stream'; readonly id: string; readonly wire: number; readonly trait: StreamTrait }
  | { readonly kind: 'node'; readonly id: string; readonly trait: NodeTrait }
  | { readonly kind: 'port'; readonly id: string; readonly port: number; readonly trait: PortTrait }
  | { readonly kind: 'visualiser'; readonly id: string; readonly trait: 'there' | 'address' }
  /** A visualiser listens to a wire, or receives it. */
  | { readonly kind: 'receives'; readonly id: string; readonly wire: number; readonly trait: 'lists' | 'gets' }
  | { readonly kind: 'lamp'; readonly id: string; readonly trait: LampTrait }
  /** What a person says, or would say. */
  | { readonly kind: 'answer'; readonly about: Subject; readonly question: string };

/** `there` is the thing itself. */
export type StreamTrait = 'there' | 'priority' | 'pace' | 'waits' | 'levels' | 'slots' | 'twin' | 'from' | 'effect';
export type NodeTrait = 'there' | 'address' | 'firmware' | 'failSafe' | 'priority' | 'mask' | 'doubled';
export type PortTrait = 'use' | 'protocol' | 'wire' | 'merge' | 'active' | 'merging';
export type LampTrait = 'there' | 'on' | 'set' | 'mode';

/** The same for the same fact, another for any other. */
export function factKey(fact: Fact): string {
  switch (fact.kind) {
    case 'hears':
      return `hears ${fact.what}`;
    case 'stream':
    case 'receives':
      return `${fact.kind} ${fact.id} ${fact.wire} ${fact.trait}`;
    case 'port':
      return `port ${fact.id} ${fact.port} ${fact.trait}`;
    case 'answer':
      return `answer ${sightingKey(fact.about, fact.question)}`;
    default:
      return `${fact.kind} ${fact.id} ${fact.trait}`;
  }
}

/** The value of what is not there. */
export const NONE = 'none';

/** Facts with their values; one that is not there is {@link NONE}. */
export class Facts {
  private readonly said: Map<string, { readonly fact: Fact; readonly value: string }>;

  constructor(from?: Facts) {
    this.said = new Map(from?.said);
  }

  set(fact: Fact, value: string): void {
    this.said.set(factKey(fact), { fact, value });
  }

  get(fact: Fact): string {
    return this.said.get(factKey(fact))?.value ?? NONE;
  }

  has(fact: Fact): boolean {
    return this.said.has(factKey(fact));
  }

  delete(fact: Fact): void {
    this.said.delete(factKey(fact));
  }

  *all(): Generator<Fact> {
    for (const { fact } of this.said.values()) yield fact;
  }

  /** Those of one kind. */
  *of<K extends Fact['kind']>(kind: K): Generator<Extract<Fact, { kind: K }>> {
    for (const { fact } of this.said.values()) if (fact.kind === kind) yield fact as Extract<Fact, { kind: K }>;
  }

  /** Facts that stand otherwise here than in `other`; each once. */
  differing(other: Facts): Fact[] {
    const found: Fact[] = [];
    for (const [key, { fact, value }] of this.said)
      if ((other.said.get(key)?.value ?? NONE) !== value) found.push(fact);
    for (const [key, { fact, value }] of other.said) if (!this.said.has(key) && value !== NONE) found.push(fact);
    return found;
  }
}

type Weighed = Exclude<Fact['kind'], 'answer'>;

/** What stands for much else counts more; whatever is not listed counts 1. */
const WEIGHTS: Readonly<Record<Weighed, Readonly<Record<string, number>>>> = {
  hears: {},
  node: { there: 4 },
  port: { wire: 3, use: 3, protocol: 3 },
  stream: { levels: 2, waits: 2, slots: 2, twin: 2, effect: 2 },
  visualiser: { there: 3 },
  receives: { lists: 0.5, gets: 0.5 },
  lamp: { there: 3, on: 3, set: 3, mode: 3 },
};
/** What a person says of a thing is not to be doubted. */
const SEEN = 3;

export function weightOf(fact: Fact): number {
  if (fact.kind === 'answer') return SEEN;
  return fact.kind === 'hears' ? 1 : (WEIGHTS[fact.kind][fact.trait] ?? 1);
}
