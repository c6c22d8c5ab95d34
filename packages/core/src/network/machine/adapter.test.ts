import { adapterPlanOf, NEW_ADAPTER, putAdapter, type AdapterPlan } from '.';
import { checkRecord, type Machine } from '../../show/records';

const plan = (over: Partial<AdapterPlan> = {}, line: Partial<AdapterPlan['line']> = {}): AdapterPlan => ({
  ...NEW_ADAPTER,
  ...{ name: 'Chart plug', serial: 'A12', universe: 2, rate: 30 },
  ...over,
  line: { ...NEW_ADAPTER.line, ...line },
});
const made = (given: AdapterPlan, before?: Machine, others: Machine[] = []): Machine => {
  const put = putAdapter(before, before?.id ?? 'm', given, others);
  if (!put.ok) throw new Error(put.why);
  return put.value.changes[0]!.after as Machine;
};

test('what is said of an adapter is what it is', () => {
  const given = plan(
    { use: 'in', priority: 120, loss: { kind: 'fade', after: 0, over: 3 }, start: 'black' },
    { slots: 96 },
  );
  const machine = made(given);
  expect(checkRecord('machine', machine)).toMatchObject({ ok: true });
  expect(adapterPlanOf(machine)).toEqual(given);
});

test('a change leaves what the form does not show as it was', () => {
  const before = { ...made(plan()), rev: 4, notes: 'under the chart table', placeId: 'place-bridge' };
  const after = made(plan({ name: 'Chart table plug' }), before);
  expect(after).toEqual({ ...before, name: 'Chart table plug' });
});

test('an input sends no route', () => {
  expect(made(plan({ use: 'in' }, { routeId: 'r' })).line!.routeId).toBeNull();
  expect(made(plan({}, { routeId: 'r' })).line!.routeId).toBe('r');
});

test('refused in a sentence: no name, nowhere to find it, a plug that another has', () => {
  const why = (given: AdapterPlan, others: Machine[] = []) => {
    const put = putAdapter(undefined, 'new', given, others);
    return put.ok ? '' : put.why;
  };
  const other = { ...made(plan({ name: 'Other' })), id: 'other' };
  expect(why(plan({ name: ' ' }))).toMatch(/name/);
  expect(why(plan({ serial: '' }))).toMatch(/serial number/);
  expect(why(plan(), [other])).toBe('Other has this plug already.');
  expect(why(plan({ serial: 'B' }), [other])).toBe('');
  const far = { ...made(plan({ serial: '' }, { at: '10.0.0.9:2217' })), id: 'far' };
  expect(why(plan({ serial: '' }, { at: '10.0.0.9:2217' }), [far])).toMatch(/already/);
});
