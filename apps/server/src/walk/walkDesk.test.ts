/** Who walks, and what each has in hand: through restarts, and when phones fall silent. */
import type { StepRequest } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { rigOf } from '@taxiarch/core/rig/patch';
import type { Walk } from '@taxiarch/core/show/records';
import { WHOLE_WALK, findNext, type WalkPart } from '@taxiarch/core/proving/walk';
import { WalkDesk, type Lights } from './walkDesk';

const walk: Walk = {
  ...{ id: 'w', rev: 1, name: 'Spots', by: 'Mira', at: '', order: 'number', unit: 'lamp', pictures: ['full'] },
  ...{ covers: { kind: 'chosen', id: '', part: '' }, lampIds: ['lamp-101', 'lamp-102', 'lamp-103', 'lamp-104'] },
};
const rig = rigOf({ ...nightFerry(), walk: [walk] });
const dark: Lights = {
  isHot: false,
  light: () => Promise.resolve(undefined),
  dark: () => Promise.resolve(),
  shines: () => false,
};
const STARTED = 5000;

function desk() {
  const time = { now: 100_000 };
  const made = new WalkDesk({ nextOfWalk: (wish) => Promise.resolve(findNext(rig, wish)) }, dark, () => time.now);
  const step = (walker: string, over: Partial<StepRequest> = {}) =>
    made.step('w', {
      ...{ walker, by: walker, part: WHOLE_WALK, want: 'next', from: '', this: '', done: [] },
      ...over,
    });
  return { time, made, step };
}

test('after a start nobody is given what somebody who walks on has in hand', async () => {
  const { step } = desk();
  // She asks at once; he says a moment later what he had in hand before the server went.
  const hers = step('Mira');
  const his = await step('Jory', { want: 'stay', from: 'lamp-101' });
  expect(his.at).toBe('lamp-101');
  expect((await hers).at).toBe('lamp-102');
});

test('who falls silent for five seconds has nothing in hand any more; their part is left to them while there is other work', async () => {
  const { time, step } = desk();
  time.now += STARTED;
  const turn = (index: number): WalkPart => ({ kind: 'turn', id: '', index, of: 2 });
  expect((await step('Jory', { part: turn(0) })).at).toBe('lamp-101');
  time.now += 4000;
  expect((await step('Mira', { want: 'stay' })).others).toMatchObject([{ by: 'Jory', at: 'lamp-101' }]);
  time.now += 2000;
  const hers = await step('Mira', { part: turn(1), done: ['lamp-102'] });
  expect([hers.at, hers.others]).toEqual(['lamp-104', []]);
  // Of her own part nothing is left: then she helps, with what he may not come to.
  expect((await step('Mira', { part: turn(1), from: 'lamp-104', done: ['lamp-102', 'lamp-104'] })).at).toBe('lamp-101');
});

test('what one has marked is given to nobody, though the mark has not come yet; nor when its phone has left', async () => {
  const { time, made, step } = desk();
  time.now += STARTED;
  await step('Jory');
  expect((await step('Jory', { from: 'lamp-101', done: ['lamp-101'] })).at).toBe('lamp-102');
  expect((await step('Mira')).at).toBe('lamp-103');
  await made.leave('w', 'Jory');
  expect((await step('Mira', { from: 'lamp-103', done: ['lamp-103'] })).at).toBe('lamp-104');
  expect((await step('Mira', { from: 'lamp-104', done: ['lamp-103', 'lamp-104'] })).at).toBe('lamp-102');
});

test('steps that come at once are taken one after the other', async () => {
  const { time, step } = desk();
  time.now += STARTED;
  const all = await Promise.all(['a', 'b', 'c', 'd', 'e'].map((one) => step(one)));
  expect(all.map(({ at }) => at)).toEqual([...walk.lampIds, '']);
});

test('a walk that is not there, and safe, are said', async () => {
  const { time, made, step } = desk();
  time.now += STARTED;
  const wish = { walker: 'a', by: 'a', part: WHOLE_WALK, want: 'next' as const, from: '', this: '', done: [] };
  await expect(made.step('gone', wish)).rejects.toThrow('This walk is not in the show any more.');
  expect(await step('a', { light: { speed: 1, level: 1 } })).toMatchObject({ lighting: 'safe', at: 'lamp-101' });
});
