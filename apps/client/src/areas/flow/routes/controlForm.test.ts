import { nightFerry } from '@taxiarch/core/whole/demo';
import { type Control, PLAIN_INPUT, PLAIN_ROUTE, type Route } from '@taxiarch/core/show/records';
import { NEW_CONTROL, controlFormOf, controlPlan, isSwitch, movesOptions, type ControlForm } from './controlForm';

const route: Route = {
  ...PLAIN_ROUTE,
  id: 'r',
  rev: 1,
  name: 'Over',
  order: 1,
  inputs: [{ ...PLAIN_INPUT, wire: { protocol: 'sacn', number: 1 } }],
  out: { protocol: 'sacn', number: 101 },
};
const show = { ...nightFerry(), route: [route] };
const typed = (over: Partial<ControlForm>): ControlForm => ({
  ...NEW_CONTROL,
  at: '41/3',
  moves: 'master route r',
  ...over,
});

test('a fader of the Purser’s desk becomes the master of a route', () => {
  const plan = controlPlan(typed({}), undefined, 'c', show);
  expect(plan).toMatchObject({
    ok: true,
    value: {
      sentence: 'Added sACN 41/3 in the input map',
      lines: [{ subject: 'sACN 41/3', before: '', after: 'master of route Over' }],
    },
  });
  const control = plan.ok ? (plan.value.changes[0]!.after as Control) : undefined;
  expect(controlPlan(controlFormOf(control!), control, 'x', { ...show, control: [control!] })).toMatchObject({
    why: 'Nothing would change.',
  });
  expect(controlPlan(typed({}), undefined, 'd', { ...show, control: [control!] })).toMatchObject({
    why: 'sACN 41/3 does that already.',
  });
});

test.each([
  [{ at: '41' }, /universe and channel, as in 41\/3/],
  [{ at: 'x/3' }, /names no universe/],
  [{ at: '41/513' }, /at most 512/],
  [{ moves: '' }, /Choose what/],
  [{ moves: 'master universe nine' }, /whole number/],
  [{ moves: 'switch group Spots' }, /Only a route/],
  [{ threshold: '0' }, /at least 1/],
])('%j is refused in a sentence', (over, why) =>
  expect(controlPlan(typed(over), undefined, 'c', show)).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);

test('one choice names everything that a channel can move', () => {
  const options = movesOptions({ route: [route], universe: show.universe.slice(0, 1) }, ['Spots']);
  expect(options.map(({ label }) => label)).toEqual([
    'Scales route Over',
    'Switches route Over',
    'Scales group Spots',
    expect.stringMatching(/^Scales all routes into universe 1/),
  ]);
  for (const { value } of options) {
    const plan = controlPlan(typed({ moves: value }), undefined, 'c', show);
    expect(plan.ok && controlFormOf(plan.value.changes[0]!.after as Control).moves).toBe(value);
    expect(isSwitch(typed({ moves: value }))).toBe(value === 'switch route r');
  }
});
