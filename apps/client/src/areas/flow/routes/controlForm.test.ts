import { nightFerry } from '@taxiarch/core/demo';
import { type Control, PLAIN_INPUT, PLAIN_ROUTE, type Route } from '@taxiarch/core/records';
import { NEW_CONTROL, controlFormOf, controlPlan, type ControlForm } from './controlForm';

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
  universe: '41',
  channel: '3',
  target: 'r',
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
  [{ universe: 'x' }, /names no universe/],
  [{ channel: '513' }, /at most 512/],
  [{ target: '' }, /which route/],
  [{ kind: 'universe' as const, target: 'nine' }, /whole number/],
  [{ kind: 'group' as const, target: 'Spots', does: 'switch' as const }, /Only a route/],
  [{ threshold: '0' }, /at least 1/],
])('%j is refused in a sentence', (over, why) =>
  expect(controlPlan(typed(over), undefined, 'c', show)).toMatchObject({
    ok: false,
    why: expect.stringMatching(why) as string,
  }),
);
