import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { NETWORK_CHECKS, networkConsequences, networkFindings, networkRepairs } from '.';
import { at, iface, machine, show, desk, RAISED } from './testing/shows';

/** What only a person can decide. */
const WITHOUT_REPAIR = [
  'one sub-net a page',
  'more sources than merge',
  'beyond the allowance',
  'load of a link',
  'multicast groups',
];

test('there is a show here for every check', () =>
  expect(Object.keys(RAISED).sort()).toEqual(NETWORK_CHECKS.map(({ rule }) => rule).sort()));

test('the demo show’s network has no faults', () => expect(networkFindings(nightFerry())).toEqual([]));

test.each(Object.entries(RAISED))('%s is found, alone, and in a sentence', (rule, records) => {
  const found = networkFindings(records);
  expect(found.map((one) => one.rule)).toEqual([rule]);
  expect(found[0]!.sentence).toMatch(/^[A-Z].*\.$/);
  expect(found[0]!.subjects.length).toBeGreaterThan(0);
});

test.each(Object.entries(RAISED).filter(([rule]) => !WITHOUT_REPAIR.includes(rule)))(
  'each repair of “%s” mends it and brings no other',
  (_, records) => {
    const [finding] = networkFindings(records);
    const repairs = networkRepairs(records, finding!);
    expect(repairs.length).toBeGreaterThan(0);
    for (const { plan } of repairs) {
      expect(networkFindings(recordsAfter(records, plan.changes))).toEqual([]);
      expect(plan.lines.length).toBeGreaterThan(0);
      expect(networkConsequences(records, plan)).toEqual([]);
    }
  },
);

describe('loopback in a show without an address plan', () => {
  const loop = (name: string, host: number) => machine(name, [iface(at(`127.0.0.${host}`))]);

  test('one edit keeps the loopback addresses for stand-ins and cures all three', () => {
    const records = show([loop('Desk', 2), loop('North', 3), loop('South', 4)], { network: [] });
    const findings = networkFindings(records);
    expect(findings.map(({ rule }) => rule)).toEqual(Array(3).fill('loopback between machines'));
    for (const finding of findings) {
      const [repair] = networkRepairs(records, finding);
      expect(networkFindings(recordsAfter(records, repair!.plan.changes))).toEqual([]);
      expect(repair!.plan.lines[0]!.after).toBe('127.0.0.0/8, for stand-ins: Desk, North, South');
    }
  });

  test('among real addresses the machine moves into their subnet, which becomes the address plan', () => {
    const records = show([desk, loop('North', 3)], { network: [] });
    const [finding] = networkFindings(records);
    const repairs = networkRepairs(records, finding!);
    expect(repairs.map(({ label }) => label)).toEqual(['Give North 10.0.0.2 in 10.0.0.0/8']);
    const after = recordsAfter(records, repairs[0]!.plan.changes);
    expect(networkFindings(after)).toEqual([]);
    expect(after.network).toMatchObject([{ network: '10.0.0.0', prefix: 8, standIn: false }]);
  });
});
