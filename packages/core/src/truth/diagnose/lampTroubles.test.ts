/** What lamps said on the first screen: as sure as it is, with its age, and nothing while nobody was asked. */
import { rigOf } from '../../rig/patch';
import type { RollReply, RollRow } from '../roll';
import { lampsAsked, lampTroubles } from './lampTroubles';
import { ferry } from './testing/scenes';

const NOW = 1_000_000;
const { patch } = rigOf(ferry);
const row = (number: number, state: RollRow['state'], over: Partial<RollRow> = {}): RollRow =>
  ({ lampId: `lamp-${number}`, number, state, confidence: 'sure', uid: '7ff1:00000001', ...over }) as RollRow;
const roll = (...rows: readonly RollRow[]): RollReply =>
  ({ rows, progress: { ended: NOW - 300_000 } }) as unknown as RollReply;

test('who differs and who is missing is told by number, with how long ago it was said', () => {
  const [differ, missing] = lampTroubles(
    roll(row(101, 'differs'), row(301, 'missing'), row(302, 'as planned')),
    patch,
    NOW,
  );
  expect(differ).toMatchObject({ lamps: 1, universes: [2], sure: 'certain', ask: { kind: 'lamp', id: 'lamp-101' } });
  expect(differ!.says).toMatch(/^1 lamp answers otherwise than planned \(101\), said .*ago\.$/);
  expect(missing!.says).toMatch(/^1 lamp answers nothing where the plan has it \(301\)/);
});

test('a match that is likely makes what it says likely, and so does one who is missing and was never met', () => {
  const sure = (one: RollRow) => lampTroubles(roll(one), patch, NOW)[0]!.sure;
  expect(sure(row(101, 'differs', { confidence: 'likely' }))).toBe('likely');
  expect(sure(row(101, 'differs', { confidence: 'known' }))).toBe('certain');
  expect(sure(row(301, 'missing', { uid: '' }))).toBe('likely');
  expect(sure(row(301, 'missing'))).toBe('certain');
});

test('those that nobody could ask stand against nothing, and are not counted', () => {
  const told = roll(
    row(51, 'cannot be asked'),
    row(361, 'cannot answer'),
    row(101, 'as planned'),
    row(103, 'not known'),
  );
  expect(lampTroubles(told, patch, NOW)).toEqual([]);
  expect(lampsAsked(told)).toMatchObject({ of: 1, known: 1 });
  expect(lampsAsked(undefined)).toMatchObject({ of: 0, known: 0 });
});
