import { PLAIN_LINE, PLAIN_MACHINE } from '../../show/records';
import {
  type HeardStream,
  isPlannedSender,
  lateAfter,
  pennantOf,
  raggedBecause,
  type Sender,
  sendersByUniverse,
  standingOf,
  unrestHere,
} from '.';

const sender = (name: string, address = '', universes: number[] = [1]): Sender => ({
  machine: { ...PLAIN_MACHINE, id: name, rev: 1, name, kind: 'console' },
  id: name,
  name,
  addresses: address === '' ? [] : [address],
  lines: universes.map((from) => ({ ...PLAIN_LINE, from })),
  pennant: { letter: name[0]!, cut: 'notch', fill: 'dots' },
});

const stream = (over: Partial<HeardStream> = {}): HeardStream => ({
  name: 'Bridge desk',
  address: '127.0.0.21',
  protocol: 'sacn',
  own: false,
  preview: false,
  lost: false,
  age: 20,
  rate10: 40,
  missing10: 0,
  jitter: 1,
  ...over,
});

const bridge = sender('Bridge desk', '127.0.0.21');
/** It sends nothing while nothing changes. */
const idling = { ...bridge, lines: [{ ...PLAIN_LINE, from: 1, whenIdle: false }] };

test.each([
  ['steady', [bridge], [stream()]],
  ['silent', [bridge], []],
  ['silent', [bridge], [stream({ lost: true })]],
  ['silent', [bridge], [stream({ preview: true })]],
  ['silent', [bridge], [stream({ own: true, name: 'Taxiarch' })]],
  ['steady', [bridge], [stream(), stream({ own: true, name: 'Taxiarch' })]],
  ['contested', [bridge], [stream(), stream({ name: 'Stern desk', address: '127.0.0.22' })]],
  ['contested', [bridge], [stream({ name: 'Stern desk', address: '127.0.0.22' })]],
  ['steady', [bridge, sender('Stern desk')], [stream(), stream({ name: 'Stern desk', address: '127.0.0.22' })]],
  ['ragged', [bridge], [stream({ missing10: 30 })]],
  ['steady', [bridge], [stream({ missing10: 2 })]],
  ['ragged', [bridge], [stream({ jitter: 60 })]],
  ['ragged', [bridge], [stream({ age: 1400 })]],
  ['steady', [bridge], [stream({ protocol: 'artnet', age: 1400 })]],
  // Received and controlling nothing, or discarded, lights nothing.
  ['silent', [bridge], [stream({ offers: [] })]],
  ['steady', [bridge], [stream({ offers: [{ from: 3, to: 9 }] })]],
  ['silent', [bridge], [stream({ lost: true, rate1: 0, discarded1: 40, discarded: 'repeated' })]],
  ['ragged', [bridge], [stream({ rate1: 2, discarded1: 38, discarded: 'late' })]],
  // Each packet two or three times on the way, priorities for slots among them: nothing is missing.
  ['steady', [bridge], [stream({ rate1: 39, discarded1: 41, discarded: 'repeated' })]],
  ['steady', [bridge], [stream({ rate1: 40, discarded1: 82, discarded: 'repeated' })]],
  ['ragged', [bridge], [stream({ pauses10: 4 })]],
  ['steady', [bridge], [stream({ pauses10: 3 })]],
  ['steady', [bridge], [stream({ pauses10: 9, rate10: 4 })]],
  ['steady', [idling], [stream({ pauses10: 9 })]],
] as const)('a planned universe is %s (%#)', (state, planned, heard) =>
  expect(standingOf([...planned], [...heard]).state).toBe(state),
);

test('what is heard and not planned is stray', () => {
  expect(standingOf(undefined, [stream()]).state).toBe('stray');
});

test('the reason names who and what', () => {
  expect(standingOf([bridge], [stream(), stream({ name: 'Stern desk', address: '127.0.0.22' })]).because).toBe(
    'Stern desk also sends',
  );
  const stern = stream({ name: 'Stern desk', address: '127.0.0.22' });
  const because = (...heard: HeardStream[]) => standingOf([bridge], heard).because;
  expect(because(stern)).toBe('Stern desk sends instead');
  expect(because(stream(), stern, stream({ name: '', address: '10.0.0.9' }))).toBe('Stern desk and 10.0.0.9 also send');
  expect(because(stream(), stream({ address: '127.0.0.23' }))).toBe(
    'Bridge desk (127.0.0.21) and Bridge desk (127.0.0.23) all send',
  );
  expect(because(stream({ twin: true }), stream({ twin: true, address: '127.0.0.23' }))).toBe(
    'one component id, from 127.0.0.21 and 127.0.0.23',
  );
  expect(because(stream({ levels: false }))).toBe('Bridge desk: start codes that are no levels');
  expect(raggedBecause(stream({ missing10: 30 }))).toBe('30 packets lost in 10 s');
  expect(raggedBecause(stream({ age: 2100 }))).toBe('nothing for 2.1 s');
  expect(lateAfter('artnet')).toBeGreaterThan(4000);
});

test('a port that reports a merge where one sender is received has another that is not received here', () => {
  const boiler = 'Boiler node port 2';
  expect(standingOf([bridge], [stream()], boiler)).toEqual({
    state: 'contested',
    because: 'Boiler node port 2 reports a merge: another device sends there too',
  });
  const two = [bridge, sender('Stern desk')];
  const both = (priority: number, more = {}) => [
    stream({ priority: 100 }),
    stream({ name: 'Stern desk', priority, ...more }),
  ];
  expect(standingOf(two, both(100), boiler).state).toBe('steady');
  expect(standingOf(two, both(90), boiler).state).toBe('contested');
  expect(standingOf(two, both(90, { slotPriority: true }), boiler).state).toBe('steady');
  expect(standingOf([bridge], [], boiler).state).toBe('silent');
  // What Taxiarch itself sends is merged too, and told of for a while after it was given back.
  const own = (over: Partial<HeardStream> = {}) => stream({ name: 'Taxiarch', own: true, ...over });
  expect(standingOf([bridge], [stream(), own()], boiler).state).toBe('steady');
  expect(standingOf([bridge], [stream(), own({ lost: true, age: 12_000 })], boiler).state).toBe('steady');
  expect(standingOf([bridge], [stream(), own({ lost: true, age: 20_000 })], boiler).state).toBe('contested');
  expect(standingOf([bridge], [stream(), own({ preview: true })], boiler).state).toBe('contested');
});

test('what this computer does to all streams alike is held against none of them', () => {
  const held = { pauses10: 6, jitter: 50 };
  const one = stream(held);
  const stern = (over: Partial<HeardStream>) => stream({ name: 'Stern desk', address: '127.0.0.22', ...over });
  const stateOf = (...others: HeardStream[]) =>
    standingOf([bridge], [{ ...one, here: unrestHere([one, ...others])(one.address) }]).state;
  expect(stateOf(stern(held))).toBe('steady');
  expect(stateOf(stern({ pauses10: 2, jitter: 10 }))).toBe('steady');
  expect(stateOf(stern({ pauses10: 1, jitter: 10 }))).toBe('ragged');
  expect(stateOf(stern({ pauses10: 2, jitter: 7 }))).toBe('ragged');
  expect(stateOf(stern({}))).toBe('ragged');
  expect(stateOf()).toBe('ragged');
  // Its own other streams say nothing of this computer, nor do those that are lost or slow.
  expect(stateOf(stream(held), stern({ ...held, lost: true }), stern({ ...held, rate10: 2 }))).toBe('ragged');
});

test('the reason says what receivers make of it, with both numbers', () => {
  const because = (...heard: HeardStream[]) => standingOf([bridge], heard).because;
  expect(because(stream({ offers: [] }))).toBe('Bridge desk: received, but controls no slot');
  expect(because(stream({ lost: true, rate1: 0, discarded1: 20, discarded: 'repeated' }))).toBe(
    'Bridge desk: 20 packets a second received, 0 accepted: the sequence number does not change',
  );
  expect(because(stream({ rate1: 2, discarded1: 38, discarded: 'late' }))).toBe(
    'Bridge desk: 40 packets a second received, 2 accepted: packets come out of order',
  );
  expect(because(stream({ pauses10: 12 }))).toBe('Bridge desk: comes in bursts: 12 pauses in 10 s');
});

test('a sender is known by name or by address, and an empty address matches nobody', () => {
  expect(isPlannedSender(stream({ address: '10.0.0.1' }), [bridge])).toBe(true);
  expect(isPlannedSender(stream({ name: '', address: '127.0.0.21' }), [bridge])).toBe(true);
  expect(isPlannedSender(stream({ name: 'x', address: '' }), [sender('Porthole')])).toBe(false);
});

test('pennants: the planned one, our own, and for strangers one that stays', () => {
  expect(pennantOf(stream(), [bridge])).toEqual(bridge.pennant);
  expect(pennantOf(stream({ own: true }), [bridge]).letter).toBe('T');
  const stranger = stream({ name: 'Purser’s desk', address: '127.0.0.40' });
  expect(pennantOf(stranger, [bridge])).toEqual(pennantOf(stranger, []));
  expect(pennantOf(stranger, []).letter).toBe('P');
  expect(pennantOf(stream({ name: '', address: '127.0.0.41' }), []).letter).toBe('?');
});

test('senders are listed by the universe that they send', () => {
  const senders = sendersByUniverse([sender('A', '', [1, 2]), sender('B', '', [2])]);
  expect(senders.get(2)?.map(({ name }) => name)).toEqual(['A', 'B']);
  expect(senders.get(3)).toBeUndefined();
});
