import { multicastGroup } from '@taxiarch/core/base/address';
import type { MembershipState } from '../bridge/receiverMessages';
import { Memberships } from './memberships';

/** A system that allows `perSocket` groups a socket, and `inAll` of them. */
function system(perSocket: number, inAll: number) {
  const joined = new Map<string, object>();
  let tries = 0;
  const socket = () => {
    const one = {
      addMembership(group: string) {
        tries += 1;
        const mine = [...joined.values()].filter((owner) => owner === one).length;
        if (mine >= perSocket || joined.size >= inAll) throw Object.assign(new Error('full'), { code: 'ENOBUFS' });
        joined.set(group, one);
      },
      dropMembership: (group: string) => joined.delete(group),
      close() {
        for (const [group, owner] of joined) if (owner === one) joined.delete(group);
      },
    };
    return one;
  };
  const states: MembershipState[] = [];
  const memberships = new Memberships(
    socket(),
    multicastGroup,
    () => Promise.resolve(socket()),
    (state) => states.push(state),
  );
  return { memberships, joined, states, tries: () => tries };
}

const upTo = (count: number, from = 1) => Array.from({ length: count }, (_, i) => from + i);

test('sixty thousand groups cost a try each, and a little', async () => {
  const { memberships, joined, states, tries } = system(20, 4000);
  await memberships.use('10.0.0.1');
  await memberships.want(upTo(60_000));
  expect(joined.size).toBe(4000);
  expect(states.at(-1)).toEqual({ wanted: 60_000, joined: 4000, full: true });
  expect(tries()).toBeLessThan(4000 * 1.2);
});

test('when the system allows no more, what is less needed makes way', async () => {
  const { memberships, joined, states } = system(20, 50);
  await memberships.use('10.0.0.1');
  await memberships.want(upTo(60, 1000));
  await memberships.want([1, 2, 3, ...upTo(60, 1000)]);
  expect(joined.size).toBe(50);
  for (const universe of [1, 2, 3, 1000]) expect(joined.has(multicastGroup(universe))).toBe(true);
  expect(joined.has(multicastGroup(1049))).toBe(false);
  expect(states.at(-1)).toMatchObject({ joined: 50, full: true });
  await memberships.want([1, 2]);
  expect(states.at(-1)).toEqual({ wanted: 2, joined: 2, full: false });
});

test('another interface joins all anew; none leaves all', async () => {
  const { memberships, joined } = system(20, 1000);
  await memberships.want(upTo(45));
  expect(joined.size).toBe(0);
  await memberships.use('10.0.0.1');
  expect(joined.size).toBe(45);
  await memberships.use(undefined);
  expect(joined.size).toBe(0);
  await memberships.use('10.0.0.2');
  expect(joined.size).toBe(45);
});

test('what is wanted while groups are being joined is what is joined in the end', async () => {
  const { memberships, joined } = system(20, 1000);
  await memberships.use('10.0.0.1');
  const settled = memberships.want(upTo(500));
  void memberships.want(upTo(300));
  await memberships.want(upTo(40, 700));
  await settled;
  expect([...joined.keys()].sort()).toEqual(
    upTo(40, 700)
      .map((universe) => multicastGroup(universe))
      .sort(),
  );
});
