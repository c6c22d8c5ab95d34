/** What comes next in a walk, by the show as it is now, and what it shows. */
import { programOf, type Program } from '../../rig/picture';
import type { Patch, Rig } from '../../rig/patch';
import type { ShowRecords } from '../../show/records';
import type { Result } from '../../base/result';
import { itemOf, lightOf, walkItems, type WalkItem } from './items';
import { lastMarks, stateOf, type WalkState } from './marks';
import { marksOf } from './judge';
import { nextItem, type FactsOf, type WalkPart, type Walker } from './sharing';
import { portsByUniverse } from '../../network/machine';

/** What has to be known of lamps to share them. */
export function factsOf(records: Pick<ShowRecords, 'machine'>, patch: Patch): FactsOf {
  const ports = portsByUniverse(records);
  return ({ lampId }) => {
    const patched = patch.lamp(lampId)!;
    return {
      place: patched.lamp.placeId ?? '',
      light: lightOf(patched),
      ports: new Set(patched.spans.flatMap(({ universe }) => ports.get(universe) ?? [])),
    };
  };
}

export interface NextWish {
  readonly walkId: string;
  readonly part: WalkPart;
  readonly want: 'stay' | 'next' | 'this';
  readonly from: string;
  readonly this: string;
  readonly done: readonly string[];
  readonly others: readonly Walker[];
  /** What it shows is wanted too. */
  readonly light: boolean;
}

export interface NextFound {
  /** Undefined: there is no such walk. */
  readonly name: string | undefined;
  readonly item: WalkItem | undefined;
  /** The person who has it in hand, where one was wanted that somebody has */
  readonly heldBy: string;
  readonly program: Result<Program> | undefined;
  readonly left: number;
  readonly states: readonly { readonly key: string; readonly state: WalkState }[];
}

const NOTHING: NextFound = { name: undefined, item: undefined, heldBy: '', program: undefined, left: 0, states: [] };

export function findNext({ records, patch }: Rig, wish: NextWish): NextFound {
  const walk = records.walk.find(({ id }) => id === wish.walkId);
  if (!walk) return NOTHING;
  const items = walkItems(walk, patch);
  const states = [...lastMarks(marksOf(records, walk.id))].map(([key, marks]) => ({ key, state: stateOf(marks) }));
  const done = new Set([...states.map(({ key }) => key), ...wish.done]);
  const facts = factsOf(records, patch);
  const wanted = items.find(({ key }) => key === wish.this);
  const holder =
    wish.want === 'this'
      ? wish.others.find(({ at }) => at !== '' && wanted && itemOf(at).lampId === wanted.lampId)
      : undefined;
  const item =
    wish.want === 'this'
      ? holder
        ? undefined
        : wanted
      : wish.want === 'stay'
        ? items.find(({ key }) => key === wish.from)
        : nextItem({ items, facts, done, others: wish.others }, wish.part, wish.from);
  const program =
    item && wish.light
      ? programOf(
          { kind: 'walk', lampId: item.lampId, pictures: walk.pictures, channel: item.channel },
          patch,
          records.universe,
        )
      : undefined;
  return {
    name: walk.name,
    item,
    heldBy: holder?.by ?? '',
    program,
    left: items.filter(({ key }) => !done.has(key)).length,
    states,
  };
}
