/**
 * One walk, many phones: who takes which part, who has what in hand, and what comes next for each. No two have the same
 * in hand, and what is marked is not come to again.
 */
import { integer, oneOf, report, shape, text, whole, words, type Of, type ReportOf } from '../../base/field';
import type { WalkItem } from './items';

export const WALK_PARTS = ['all', 'place', 'port', 'turn'] as const;

/** What of a walk somebody takes. */
export const walkPart = shape('Part', {
  kind: oneOf('Part', WALK_PARTS, { about: 'Turn: every second, every third and so on.' }),
  id: text('Which', 120, { about: 'Id of the place or machine; else empty.' }),
  /** Of a machine its port; of turns which, from 0 */
  index: whole('Index', 0, 4096),
  of: whole('Of', 0, 64, { about: 'Turns: so many share the walk; else 0.' }),
});
export interface WalkPart extends Of<typeof walkPart.fields> {}
export const WHOLE_WALK: WalkPart = { kind: 'all', id: '', index: 0, of: 0 };

export const walker = report('Walker', {
  id: words('Of the phone.'),
  by: words(),
  part: walkPart,
  at: words('What it has in hand, by its key; empty if nothing.'),
  heardAt: integer('Unix time, ms.'),
});
export interface Walker extends Omit<ReportOf<typeof walker.fields>, 'part'> {
  readonly part: WalkPart;
}

/** What has to be known of an item to share it. */
export interface ItemFacts {
  readonly place: string;
  /** Lamps of one word light together */
  readonly light: string;
  /** `machine-1 3`: ports that carry its universe */
  readonly ports: ReadonlySet<string>;
}

export type FactsOf = (item: WalkItem) => ItemFacts;

/** Whether an item is of a part. `turn`: its lamp’s place in the walk’s order, from 0 */
export function inPart({ kind, id, index, of }: WalkPart, { place, ports }: ItemFacts, turn: number): boolean {
  switch (kind) {
    case 'all':
      return true;
    case 'place':
      return place === id;
    case 'port':
      return ports.has(`${id} ${index}`);
    case 'turn':
      return of > 0 && turn % of === index;
  }
}

export interface Sharing {
  readonly items: readonly WalkItem[];
  readonly facts: FactsOf;
  /** Keys that are marked, by whomever */
  readonly done: ReadonlySet<string>;
  /** Everybody else who is there now */
  readonly others: readonly Walker[];
}

/** Place of each lamp in the order of a walk. */
const turns = (items: readonly WalkItem[]): ReadonlyMap<string, number> => {
  const at = new Map<string, number>();
  for (const { lampId } of items) if (!at.has(lampId)) at.set(lampId, at.size);
  return at;
};

/**
 * What comes next for somebody who is at `from` (a key; empty for the begin) with a part: the next of the part that is
 * open and in nobody’s hand, from the begin again after the end; then what is in nobody else’s part; then whatever is
 * left. Undefined at the end.
 */
export function nextItem({ items, facts, done, others }: Sharing, part: WalkPart, from: string): WalkItem | undefined {
  const begin = items.findIndex(({ key }) => key === from) + 1;
  const turn = turns(items);
  const inHand = new Set<string>();
  const lights = new Set<string>();
  for (const { at } of others) {
    const item = items.find(({ key }) => key === at);
    if (!item) continue;
    inHand.add(item.key);
    lights.add(facts(item).light);
    // One lamp’s channels are one person’s.
    inHand.add(item.lampId);
  }
  const open = [...items.slice(begin), ...items.slice(0, begin)].filter(
    (item) =>
      !done.has(item.key) && !inHand.has(item.key) && !inHand.has(item.lampId) && !lights.has(facts(item).light),
  );
  const of = (one: WalkPart, item: WalkItem) => inPart(one, facts(item), turn.get(item.lampId)!);
  const own = open.find((item) => of(part, item));
  if (own) return own;
  const parts = others.map((one) => one.part).filter(({ kind }) => kind !== 'all');
  return open.find((item) => !parts.some((one) => of(one, item))) ?? open[0];
}
