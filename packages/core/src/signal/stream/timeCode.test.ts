import { timeCodeOf, timeCodesOf, type AlsoHeardReport } from '.';

const code = (over: Partial<AlsoHeardReport>): AlsoHeardReport => ({
  ...{ kind: 'timecode', address: '127.0.0.23', count: 3, says: '01:02:03:04, EBU, 25 a second' },
  ...{ changedAt: 9990, lastSeen: 10_000 },
  ...over,
});

test('time code is told with its sender, and runs while its time changes', () => {
  const [one] = timeCodesOf([code({}), code({ kind: 'trigger' })], 10_020);
  expect(one).toEqual({
    ...{ address: '127.0.0.23', time: '01:02:03:04', format: 'EBU, 25 a second' },
    ...{ runs: true, stands: false, lastSeen: 10_000 },
  });
});

test('one whose time stands does not run; one that fell silent is neither', () => {
  expect(timeCodesOf([code({ changedAt: 9000 })], 10_020)[0]).toMatchObject({ runs: false, stands: true });
  expect(timeCodesOf([code({})], 12_500)[0]).toMatchObject({ runs: false, stands: false });
});

test('of several the one that runs is written', () => {
  const standing = code({ address: 'a', changedAt: 0, says: '09:00:00:00, film' });
  expect(timeCodeOf(timeCodesOf([standing, code({})], 10_020))).toBe('01:02:03:04');
  expect(timeCodeOf(timeCodesOf([standing], 10_020))).toBe('');
});
