import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Route } from '@taxiarch/core/show/records';
import { PLAIN_INPUT_FORM, formOf, planOf, type RouteForm } from './routeForm';

const ferry = nightFerry();
const typed = (over: Partial<RouteForm>): RouteForm => ({
  ...formOf(undefined),
  inputs: [{ ...PLAIN_INPUT_FORM, universe: '9' }],
  out: 'sACN 109',
  ...over,
});
const made = (form: RouteForm): Route => {
  const plan = planOf(form, undefined, 'new', ferry);
  if (!plan.ok) throw new Error(plan.why);
  return plan.value.changes[0]!.after as Route;
};

test('a show universe is routed from where it is on the wire', () =>
  expect(made(typed({}))).toMatchObject({
    name: '9 to sACN 109',
    inputs: [{ wire: { protocol: 'artnet', number: 8 }, shift: 0 }],
    out: { protocol: 'sacn', number: 109 },
  }));

test('a route as a form changes nothing', () => {
  const route = made(typed({ delivery: 'unicast', addresses: '10.0.0.4, 10.0.0.5' }));
  const plan = planOf(formOf(route), route, 'x', { ...ferry, route: [route] });
  expect(plan).toMatchObject({ ok: false, why: 'Nothing would change.' });
});

test('slots that were set by hand stay when the way is changed', () => {
  const parts = [{ first: 1, last: 4, by: 'hand' as const, level: 9, from: null }];
  const route = { ...made(typed({})), parts };
  const plan = planOf({ ...formOf(route), master: '100' }, route, 'x', { ...ferry, route: [route] });
  expect(plan.ok && plan.value.changes[0]!.after).toMatchObject({ parts, master: 100 });
});

test.each([
  [{ out: '' }, /Where it goes/],
  [{ inputs: [{ ...PLAIN_INPUT_FORM, universe: 'x' }] }, /What comes in: “x” names no universe/],
  [{ inputs: [{ ...PLAIN_INPUT_FORM, universe: '1', shift: '600' }] }, /at most 511/],
  [{ out: '9' }, /would feed itself: Art-Net 0.0.8 → Art-Net 0.0.8/],
  [{ master: 'full' }, /whole number/],
  [{ delivery: 'unicast' as const }, /to which addresses/],
])('%j is refused in a sentence', (over, why) =>
  expect(planOf(typed(over), undefined, 'new', ferry)).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);

test('two routes do not send one universe', () => {
  const route = made(typed({}));
  expect(planOf(typed({}), undefined, 'other', { ...ferry, route: [route] })).toMatchObject({
    ok: false,
    why: 'The route 9 to sACN 109 sends sACN 109 already: add this input to it.',
  });
});
