import { wireKey } from '@taxiarch/core/base/address';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { findUniverse, tokenOf } from './universes';

const ferry = nightFerry();

test('every universe of the show is found by its own token, with its plan', () => {
  for (const plan of ferry.universe) {
    const key = wireKey({ protocol: plan.protocol, number: plan.wire });
    const token = tokenOf({ key, show: plan.number });
    expect(token).toBe(`u${plan.number}`);
    expect(findUniverse(token, ferry)).toEqual({ key, plan });
  }
});

test('one that is only on the wire is found by what it is there', () => {
  for (const wire of [
    { protocol: 'sacn', number: 777 },
    { protocol: 'artnet', number: 32_767 },
  ] as const) {
    const token = tokenOf({ key: wireKey(wire), show: null });
    expect(findUniverse(token, ferry)).toEqual({ key: wireKey(wire), plan: undefined });
  }
});

test('what names nothing is not found', () => {
  for (const token of ['', 'u', 'u0', 'u63999', 'sacn-0', 'nonesuch'])
    expect(findUniverse(token, ferry)).toBeUndefined();
});
