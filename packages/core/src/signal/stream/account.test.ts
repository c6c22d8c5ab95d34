import fc from 'fast-check';
import { StreamAccount, sequenceStep } from '.';

/** A stream that sends `count` packets every `every` ms from time 0, numbered in order. */
function steady(protocol: 'sacn' | 'artnet', count: number, every: number): { account: StreamAccount; now: number } {
  const account = new StreamAccount(protocol, 0);
  for (let i = 0; i < count; i += 1) account.note(i * every, protocol === 'sacn' ? i & 0xff : (i % 255) + 1, true);
  return { account, now: (count - 1) * every };
}

describe('sequence numbers', () => {
  test('sACN steps are the signed 8-bit difference (E1.31, 6.7.2)', () => {
    fc.assert(
      fc.property(fc.nat(255), fc.integer({ min: -128, max: 127 }), (last, step) => {
        expect(sequenceStep('sacn', last, (last + step) & 0xff)).toBe(step);
      }),
    );
  });

  test('Art-Net goes round from 255 to 1', () => {
    expect(sequenceStep('artnet', 255, 1)).toBe(1);
    expect(sequenceStep('artnet', 1, 255)).toBe(-1);
    expect(sequenceStep('artnet', 200, 210)).toBe(10);
  });

  test.each([
    [0, false],
    [-1, false],
    [-19, false],
    [-20, true],
    [-100, true],
    [1, true],
    [90, true],
  ])('an sACN packet %d ahead is used: %s', (step, used) => {
    const account = new StreamAccount('sacn', 0);
    account.note(0, 128, true);
    expect(account.note(20, (128 + step) & 0xff, true)).toBe(used);
  });

  test('missing, repeated and late packets are counted apart', () => {
    const account = new StreamAccount('sacn', 0);
    for (const [i, sequence] of [1, 2, 5, 5, 4, 6].entries()) account.note(i * 23, sequence, true);
    expect(account).toMatchObject({ packets: 4, missing: 2, repeats: 1, late: 1 });
    expect(account.missing10(150)).toBe(2);
    expect(account.missing10(12_000)).toBe(0);
    expect(account.missing).toBe(2);
  });

  test('an Art-Net sender that does not count is never late', () => {
    const account = new StreamAccount('artnet', 0);
    for (let i = 0; i < 20; i += 1) expect(account.note(i * 25, 0, true)).toBe(true);
    expect(account).toMatchObject({ packets: 20, missing: 0, repeats: 0, late: 0 });
  });

  test('numbering may begin anew after the stream was terminated', () => {
    const account = new StreamAccount('sacn', 0);
    account.note(0, 50, true);
    account.terminate(10);
    expect(account.note(20, 45, true)).toBe(true);
    expect(account.terminated).toBe(false);
  });
});

describe('rates', () => {
  test.each([10, 40, 44])('a stream of %d a second reads as such over 1 s and 10 s', (rate) => {
    const { account, now } = steady('sacn', rate * 15, 1000 / rate);
    expect(Math.abs(account.rate1(now) - rate)).toBeLessThanOrEqual(1);
    expect(Math.abs(account.rate10(now) - rate)).toBeLessThanOrEqual(0.5);
  });

  test('a young stream is not called slow for its youth', () => {
    const { account, now } = steady('artnet', 81, 25);
    expect(Math.round(account.rate10(now))).toBe(40);
  });

  test('rates fall to nothing when the stream stops, and recover', () => {
    const { account, now } = steady('sacn', 100, 25);
    expect(account.rate1(now + 1200)).toBe(0);
    expect(account.rate10(now + 20_000)).toBe(0);
    account.note(now + 20_010, 101, true);
    expect(account.rate1(now + 20_120)).toBe(1);
  });

  test('packets without levels keep the numbering but not the rate', () => {
    const account = new StreamAccount('sacn', 0);
    for (let i = 0; i < 80; i += 1) account.note(i * 25, i & 0xff, i % 2 === 0);
    expect(account.rate1(1990)).toBe(20);
    expect(account.missing).toBe(0);
  });
});

describe('steadiness', () => {
  test('even intervals have no jitter, uneven ones their deviation; pauses count for nothing', () => {
    expect(steady('sacn', 200, 25).account.jitter).toBeCloseTo(0);
    const uneven = new StreamAccount('sacn', 0);
    let now = 0;
    for (let i = 0; i < 400; i += 1) {
      now += i % 2 === 0 ? 15 : 35;
      uneven.note(now, i & 0xff, true);
    }
    expect(uneven.jitter).toBeGreaterThan(8);
    expect(uneven.jitter).toBeLessThan(12);
    const { account, now: end } = steady('sacn', 100, 25);
    account.note(end + 900, 100, true);
    expect(account.jitter).toBeCloseTo(0);
  });

  test('discarded packets are counted per second with their reason, and keep no stream alive', () => {
    const still = new StreamAccount('sacn', 0);
    for (let now = 0; now <= 3000; now += 25) still.note(now, 7, true);
    expect(still).toMatchObject({ packets: 1, lastSeen: 0, discarded: 'repeated' });
    expect([still.rate1(3000), still.discarded1(3000)]).toEqual([0, 40]);
    expect([still.lost(2500, 2500), still.lost(2501, 2500)]).toEqual([false, true]);
    const backwards = new StreamAccount('sacn', 0);
    for (let now = 0; now < 2000; now += 25) backwards.note(now, (255 - now / 25) & 0xff, true);
    expect(backwards.discarded).toBe('late');
    // One of twenty is so far behind that the sender is taken to have begun anew.
    expect(backwards.packets).toBe(4);
    expect(backwards.discarded1(5000)).toBe(0);
    const { account, now } = steady('sacn', 100, 25);
    expect([account.discarded, account.discarded1(now)]).toEqual(['', 0]);
  });

  test('pauses of a quarter of a second are counted for ten seconds', () => {
    const bursts = new StreamAccount('sacn', 0);
    let now = 0;
    for (let burst = 0; burst < 20; burst += 1)
      for (let i = 0; i < 20; i += 1) bursts.note((now += i === 0 ? 490 : 10), (burst * 20 + i) & 0xff, true);
    expect(bursts.pauses10(now)).toBe(15);
    expect(bursts.pauses10(now + 12_000)).toBe(0);
    const even = new StreamAccount('sacn', 0);
    for (let i = 0; i < 40; i += 1) even.note(i * 249, i, true);
    expect(even.pauses10(40 * 249)).toBe(0);
  });

  test('lost after the time-out and not before; at once when terminated', () => {
    const { account, now } = steady('sacn', 10, 25);
    expect(account.lost(now + 2500, 2500)).toBe(false);
    expect(account.lost(now + 2501, 2500)).toBe(true);
    account.terminate(now + 1);
    expect(account.lost(now + 1, 2500)).toBe(true);
  });
});
