/** Sharing a walk: every lamp exactly once, whoever joins, leaves or drops out. */
import fc from 'fast-check';
import { nextItem, inPart, type Sharing, type Walker, type WalkPart, WHOLE_WALK } from './sharing';
import type { WalkItem } from './items';

const PLACES = ['bow', 'stern', 'quay'];
const item = (i: number): WalkItem => ({ key: `l${i}`, lampId: `l${i}`, channel: 0 });
const facts: Sharing['facts'] = ({ lampId }) => {
  const i = Number(lampId.slice(1));
  return { place: PLACES[i % PLACES.length]!, light: `1/${i}`, ports: new Set([`node ${(i % 4) + 1}`]) };
};

const part: fc.Arbitrary<WalkPart> = fc.oneof(
  fc.constant(WHOLE_WALK),
  fc.constantFrom(...PLACES).map((id): WalkPart => ({ ...WHOLE_WALK, kind: 'place', id })),
  fc.integer({ min: 1, max: 4 }).map((index): WalkPart => ({ ...WHOLE_WALK, kind: 'port', id: 'node', index })),
  fc.integer({ min: 0, max: 2 }).map((index): WalkPart => ({ ...WHOLE_WALK, kind: 'turn', index, of: 3 })),
);
const act = fc.record({
  who: fc.integer({ min: 0, max: 3 }),
  does: fc.constantFrom('step', 'step', 'step', 'step', 'leaves', 'joins'),
  part,
});

test('every lamp is marked exactly once, and no two have the same in hand', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 30 }), fc.array(act, { maxLength: 120 }), (count, acts) => {
      const items = Array.from({ length: count }, (_, i) => item(i));
      const there = new Map<string, Walker>();
      const marked: string[] = [];
      const done = new Set<string>();
      const mark = (key: string) => {
        marked.push(key);
        done.add(key);
      };
      const step = (id: string) => {
        const me = there.get(id);
        if (!me) return;
        if (me.at !== '') mark(me.at);
        const others = [...there.values()].filter((one) => one.id !== id);
        const next = nextItem({ items, facts, done, others }, me.part, me.at);
        if (next) expect(others.map(({ at }) => at)).not.toContain(next.key);
        there.set(id, { ...me, at: next?.key ?? '' });
      };
      for (const { who, does, part: takes } of acts) {
        const id = `p${who}`;
        if (does === 'joins') there.set(id, { id, by: id, part: takes, at: there.get(id)?.at ?? '', heardAt: 0 });
        // What somebody had in hand is open again.
        else if (does === 'leaves') there.delete(id);
        else step(id);
      }
      // One who stays to the end comes to all that is left.
      there.clear();
      there.set('last', { id: 'last', by: 'last', part: WHOLE_WALK, at: '', heardAt: 0 });
      for (let i = 0; i <= count; i += 1) step('last');
      expect([...marked].sort()).toEqual(items.map(({ key }) => key).sort());
    }),
    { numRuns: 300 },
  );
});

const sharing = (over: Partial<Sharing> = {}): Sharing => ({
  items: Array.from({ length: 9 }, (_, i) => item(i)),
  facts,
  done: new Set(),
  others: [],
  ...over,
});
const phone = (at: string, its: WalkPart = WHOLE_WALK): Walker => ({ id: at, by: at, part: its, at, heardAt: 0 });

test('on to the next, and from the begin again; from a lamp that was jumped to as well', () => {
  expect(nextItem(sharing(), WHOLE_WALK, 'l3')?.key).toBe('l4');
  expect(nextItem(sharing({ done: new Set(['l8', 'l0']) }), WHOLE_WALK, 'l7')?.key).toBe('l1');
  expect(nextItem(sharing({ done: new Set(sharing().items.map(({ key }) => key)) }), WHOLE_WALK, 'l7')).toBeUndefined();
});

test('one’s own part first; then what is in nobody’s; then help', () => {
  const stern: WalkPart = { ...WHOLE_WALK, kind: 'place', id: 'stern' };
  const quay: WalkPart = { ...WHOLE_WALK, kind: 'place', id: 'quay' };
  expect(nextItem(sharing(), stern, '')?.key).toBe('l1');
  const own = new Set(['l1', 'l4', 'l7']);
  expect(nextItem(sharing({ done: own, others: [phone('', quay)] }), stern, 'l7')?.key).toBe('l0');
  const most = new Set([...own, 'l0', 'l3', 'l6']);
  expect(nextItem(sharing({ done: most, others: [phone('l2', quay)] }), stern, 'l7')?.key).toBe('l8');
});

test('lamps that share an address are in one hand, and so are the channels of a lamp', () => {
  const twins: Sharing['facts'] = (one) => ({ ...facts(one), light: '1/1' });
  expect(nextItem(sharing({ facts: twins, others: [phone('l0')] }), WHOLE_WALK, '')).toBeUndefined();
  const channels = [1, 2].flatMap((channel) =>
    ['a', 'b'].map((lampId) => ({ key: `${lampId}#${channel}`, lampId, channel })),
  );
  const alone: Sharing['facts'] = ({ lampId }) => ({ place: '', light: lampId, ports: new Set() });
  expect(nextItem(sharing({ items: channels, facts: alone, others: [phone('a#1')] }), WHOLE_WALK, '')?.key).toBe('b#1');
});

test('every second lamp: the turns are all lamps, and no lamp twice', () => {
  const of = (index: number) =>
    sharing().items.filter((one, i) => inPart({ ...WHOLE_WALK, kind: 'turn', index, of: 2 }, facts(one), i));
  expect([...of(0), ...of(1)].map(({ key }) => key).sort()).toEqual(sharing().items.map(({ key }) => key));
});
