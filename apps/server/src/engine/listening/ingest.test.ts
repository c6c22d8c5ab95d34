/** From bytes to merged levels, without sockets and with a clock of the test's own. */
import { wireKey } from '@taxiarch/core/base/address';
import { encodeArtSync, encodeDmx, encodePoll } from '@taxiarch/core/protocol/artnet';
import { NOBODY } from '@taxiarch/core/signal/merge';
import { encodeDiscovery, encodeSync } from '@taxiarch/core/protocol/sacn';
import { CID, TIMEOUT, bench } from './testing/bench';

test('a sender appears under its name, and its levels with it as owner', () => {
  const { send, at, ingest } = bench();
  send(0, 7);
  expect(at(1, 0)).toEqual([7, 0]);
  expect(at(1, 2)).toEqual([0, NOBODY]);
  expect(ingest.universe(1)!.streams[0]).toMatchObject({ name: 'Desk 7', priority: 100, count: 2 });
});

test('levels from a late packet are not used', () => {
  const { send, at } = bench();
  send(0, 7, { sequence: 10 });
  send(20, 7, { sequence: 8, slots: Uint8Array.of(99) });
  expect(at(30, 0)[0]).toBe(7);
});

test('a sender that ends leaves at once, one that falls silent after the time-out', () => {
  const { send, at } = bench();
  send(0, 7);
  send(0, 9);
  expect(at(1, 0)[0]).toBe(9);
  send(10, 9, { terminated: true });
  expect(at(11, 0)[0]).toBe(7);
  expect(at(2500, 0)[0]).toBe(7);
  expect(at(2501, 0)).toEqual([0, NOBODY]);
});

test('previews are listed and never merged', () => {
  const { send, at, ingest } = bench();
  send(0, 7, { preview: true });
  expect(at(1, 0)).toEqual([0, NOBODY]);
  expect(ingest.universe(1)!.streams[0]!.account.preview).toBe(true);
});

test('per-slot priority rules while it is renewed, and the packet priority after', () => {
  const { send, at } = bench();
  send(0, 7);
  send(0, 9, { priority: 150 });
  send(0, 9, { priority: 150, startCode: 0xdd, slots: Uint8Array.of(0, 150) });
  expect([at(1, 0)[0], at(1, 1)[0]]).toEqual([7, 9]);
  for (let now = 500; now <= 3000; now += 500) {
    send(now, 7);
    send(now, 9, { priority: 150 });
  }
  expect(at(3001, 0)[0]).toBe(9);
});

test('a stream says on which slots it has a say: those it has levels for, and a priority above 0', () => {
  const { send, ingest } = bench();
  const offers = (now: number) => ingest.universe(1)!.streams[0]!.report(now, TIMEOUT, 0).offers;
  send(0, 7, { slots: new Uint8Array(40) });
  expect(offers(0)).toEqual([{ from: 1, to: 40 }]);
  const slots = new Uint8Array(512).fill(100).fill(0, 4, 10).fill(0, 12, 14);
  send(20, 7, { startCode: 0xdd, slots });
  expect(offers(20)).toEqual([
    { from: 1, to: 4 },
    { from: 11, to: 12 },
    { from: 15, to: 40 },
  ]);
  send(40, 7, { startCode: 0xdd, slots: new Uint8Array(512) });
  expect(offers(40)).toEqual([]);
});

test('what surrounds our own taken slots is what the others come to', () => {
  const { send, ingest } = bench();
  send(0, 7);
  send(0, 0xee, { priority: 200 });
  const universe = ingest.universe(1)!;
  expect(universe.streams[1]!.origin.sent).toBe('taken');
  expect(universe.levelsOfOthers(1, TIMEOUT)[0]).toBe(7);
});

test('what every sender says of a slot, highest priority first, with the time of its change', () => {
  const { send, ingest } = bench();
  send(0, 7);
  ingest.universe(1)!.rememberChanges();
  send(100, 7, { slots: Uint8Array.of(8, 7) });
  send(100, 9, { priority: 120 });
  expect(ingest.universe(1)!.contendersAt(0, 400, TIMEOUT)).toEqual([
    { mark: 1, value: 9, priority: 120, age: 300 },
    { mark: 0, value: 8, priority: 100, age: 300 },
  ]);
});

test('where the latest change counts, a lower level that came later wins', () => {
  const { send, at, ingest } = bench();
  ingest.universe(1)!.setMode('ltp');
  send(10, 9);
  send(20, 7);
  expect(at(30, 0)[0]).toBe(7);
});

test('Art-Net senders are told apart by address, and our own by its socket', () => {
  const { ingest, at } = bench();
  const key = wireKey({ protocol: 'artnet', number: 8 });
  const dmx = (level: number) =>
    Buffer.from(encodeDmx({ sequence: 0, physical: 0, portAddress: 8, slots: Uint8Array.of(level, 0) }));
  ingest.artnet(dmx(40), '127.0.0.21', 'others', 0, 0);
  ingest.artnet(dmx(60), '127.0.0.1', 'taken', 0, 0);
  ingest.artnet(dmx(50), '127.0.0.1', 'others', 0, 0);
  expect(ingest.universe(key)!.streams.map(({ origin }) => [origin.address, origin.sent])).toEqual([
    ['127.0.0.21', 'others'],
    ['127.0.0.1', 'taken'],
    ['127.0.0.1', 'others'],
  ]);
  expect(at(1, 0, key)).toEqual([60, 1]);
});

test('discovery, polls and sync are taken in; what is none of ours is counted by reason', () => {
  const { ingest, discovered, polls } = bench();
  const cid = new Uint8Array(16);
  ingest.sacn(
    Buffer.from(encodeDiscovery({ cid, sourceName: '', page: 0, lastPage: 0, universes: [3, 9] })),
    '127.0.0.21',
    5568,
    0,
  );
  ingest.sacn(Buffer.from(encodeSync({ cid, sequence: 1, syncAddress: 5 })), '127.0.0.21', 5568, 0);
  ingest.artnet(Buffer.from(encodePoll()), '127.0.0.21', 'others', 0, 0);
  expect([discovered, polls.length, ingest.packets]).toEqual([[3, 9], 1, 3]);
  ingest.sacn(Buffer.from('hello'), '127.0.0.21', 5568, 0);
  ingest.sacn(Buffer.from('hello'), '127.0.0.21', 5568, 0);
  ingest.artnet(Buffer.alloc(20), '127.0.0.21', 'others', 0, 0);
  expect(ingest.rejected).toEqual({ 'too-short': 2, 'not-artnet': 1 });
});

test('a look that stands still leaves its row as it was', () => {
  const { send, at, ingest, shared } = bench();
  send(0, 7);
  at(1, 0);
  const version = shared.version(ingest.universe(1)!.row);
  send(20, 7);
  at(21, 0);
  expect(shared.version(ingest.universe(1)!.row)).toBe(version);
  send(40, 7, { slots: Uint8Array.of(1) });
  at(41, 0);
  expect(shared.version(ingest.universe(1)!.row)).toBe(version + 2);
});

describe('levels that wait for their synchronisation packet', () => {
  let sequence = 0;
  const sync = (syncAddress: number) =>
    Buffer.from(encodeSync({ cid: new Uint8Array(16).fill(7), sequence: sequence++, syncAddress }));

  test('sACN: at once until the first one is heard, then held, each let in by the next', () => {
    const { send, at, ingest, came, synced } = bench();
    send(0, 7, { syncAddress: 90 });
    expect(synced).toEqual([90]);
    expect(at(1, 0)[0]).toBe(7);
    ingest.sacn(sync(90), '127.0.0.21', 5568, 10);
    send(20, 7, { syncAddress: 90, slots: Uint8Array.of(50) });
    send(30, 7, { syncAddress: 90, slots: Uint8Array.of(60) });
    expect(at(31, 0)[0]).toBe(7);
    ingest.sacn(sync(91), '127.0.0.21', 5568, 32);
    expect(at(33, 0)[0]).toBe(7);
    ingest.sacn(sync(90), '127.0.0.21', 5568, 40);
    expect(at(41, 0)[0]).toBe(60);
    // Told as new levels when they were let in, not when they came.
    expect(came).toEqual([1, 1]);
  });

  test('sACN: when synchronisation stops, the option says whether levels run on', () => {
    const { send, at, ingest } = bench();
    ingest.sacn(sync(90), '127.0.0.21', 5568, 0);
    send(1, 7, { syncAddress: 90 });
    ingest.sacn(sync(90), '127.0.0.21', 5568, 2);
    send(2600, 7, { syncAddress: 90, slots: Uint8Array.of(50) });
    expect(at(2601, 0)[0]).toBe(7);
    send(2610, 7, { syncAddress: 90, forceSync: true, slots: Uint8Array.of(51) });
    expect(at(2611, 0)[0]).toBe(51);
    // However long it is away.
    for (let now = 3000; now < 200_000; now += 2000) send(now, 7, { syncAddress: 90, slots: Uint8Array.of(52) });
    expect(at(199_100, 0)[0]).toBe(51);
    ingest.sacn(sync(90), '127.0.0.21', 5568, 199_200);
    expect(at(199_201, 0)[0]).toBe(52);
  });

  test('Art-Net: held while its own sender synchronises, and not while two are merged', () => {
    const { ingest, at } = bench();
    const key = wireKey({ protocol: 'artnet', number: 8 });
    const dmx = (level: number, from: string, now: number) =>
      ingest.artnet(
        Buffer.from(encodeDmx({ sequence: 0, physical: 0, portAddress: 8, slots: Uint8Array.of(level, 0) })),
        from,
        'others',
        0,
        now,
      );
    const artSync = (from: string, now: number) => ingest.artnet(Buffer.from(encodeArtSync()), from, 'others', 0, now);
    dmx(10, '127.0.0.21', 0);
    artSync('127.0.0.99', 1);
    dmx(20, '127.0.0.21', 2);
    expect(at(3, 0, key)[0]).toBe(20);
    artSync('127.0.0.21', 4);
    dmx(30, '127.0.0.21', 5);
    expect(at(6, 0, key)[0]).toBe(20);
    artSync('127.0.0.21', 7);
    expect(at(8, 0, key)[0]).toBe(30);
    dmx(5, '127.0.0.22', 9);
    dmx(40, '127.0.0.21', 10);
    expect(at(11, 0, key)[0]).toBe(40);
  });

  test('a late or repeated synchronisation packet lets nothing in', () => {
    const { send, at, ingest } = bench();
    const numbered = (number: number, now: number) =>
      ingest.sacn(Buffer.from(encodeSync({ cid: CID, sequence: number, syncAddress: 90 })), '127.0.0.21', 5568, now);
    numbered(10, 0);
    send(1, 7, { syncAddress: 90, slots: Uint8Array.of(1) });
    numbered(10, 2);
    numbered(8, 3);
    expect(at(4, 0)[0]).toBe(0);
    numbered(11, 5);
    expect(at(6, 0)[0]).toBe(1);
    expect(ingest.syncs.report(10, 0)).toMatchObject([{ universe: 90, address: '127.0.0.21', missing: 0, late: 2 }]);
  });

  test('Art-Net: what its ArtSync overtook on the way is let in at once, and only that', () => {
    const { ingest, at } = bench();
    const dmx = (level: number, via: number, now: number) =>
      ingest.artnet(
        Buffer.from(encodeDmx({ sequence: 0, physical: 0, portAddress: 8, slots: Uint8Array.of(level, 0) })),
        '127.0.0.21',
        'others',
        via,
        now,
      );
    const artSync = (now: number) => ingest.artnet(Buffer.from(encodeArtSync()), '127.0.0.21', 'others', 0, now);
    const level = (now: number) => at(now, 0, wireKey({ protocol: 'artnet', number: 8 }))[0];
    dmx(1, 1, 0);
    artSync(20);
    dmx(2, 1, 21);
    expect(level(21)).toBe(2);
    // The next frame already: it waits.
    dmx(3, 1, 22);
    expect(level(23)).toBe(2);
    artSync(40);
    expect(level(40)).toBe(3);
    // Let in by this one before: nothing was overtaken.
    dmx(4, 1, 42);
    expect(level(42)).toBe(3);
    artSync(60);
    // By the same socket the order is what it was on the wire.
    artSync(80);
    dmx(5, 0, 81);
    expect(level(81)).toBe(4);
  });
});
