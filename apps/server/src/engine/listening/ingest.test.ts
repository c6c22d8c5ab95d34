/** From bytes to merged levels, without sockets and with a clock of the test's own. */
import { wireKey } from '@taxiarch/core/base/address';
import { ArtNet, encodeArtSync, encodeDmx, encodePoll, type ArtPoll } from '@taxiarch/core/protocol/artnet';
import { NOBODY } from '@taxiarch/core/signal/merge';
import { encodeData, encodeDiscovery, encodeSync, type SacnData } from '@taxiarch/core/protocol/sacn';
import { Ingest } from './ingest';
import { SharedLevels } from '../../bridge/shared';
import { levelsFrom } from '../../testing/wire';
import { LiveUniverse } from './universe';

const OWN = new Uint8Array(16).fill(0xee);
const ROUTES = new Uint8Array(16).fill(0xed);
const CID = new Uint8Array(16).fill(7);
const TIMEOUT = 2500;

function bench() {
  const shared = new SharedLevels();
  const discovered: number[] = [];
  const polls: ArtPoll[] = [];
  const came: number[] = [];
  const synced: number[] = [];
  const others: string[][] = [];
  const ingest = new Ingest(
    shared,
    (key, row, memory) => new LiveUniverse(key, row, memory),
    { taken: OWN, routes: ROUTES },
    {
      onLevels: (key) => came.push(key),
      onSyncAddress: (universe) => synced.push(universe),
      onUniverse: () => undefined,
      onDiscovered: ({ universes }) => discovered.push(...universes),
      onPoll: (poll) => polls.push(poll),
      onPollReply: () => undefined,
      onIpProgReply: () => undefined,
      onLamps: () => undefined,
      onOther: (kind, address, says) => others.push([kind, address, says]),
    },
  );
  const sequences = new Map<number, number>();
  const send = (now: number, from: number, over: Partial<SacnData> = {}) => {
    const sequence = ((sequences.get(from) ?? 0) + 1) & 0xff;
    sequences.set(from, sequence);
    const given = { cid: new Uint8Array(16).fill(from), sourceName: `Desk ${from}`, universe: 1, sequence };
    const message = levelsFrom({ ...given, slots: Uint8Array.of(from, from), ...over });
    ingest.sacn(Buffer.from(encodeData(message)), '127.0.0.21', 5568, now);
  };
  const at = (now: number, slot: number, key = 1): [number, number] => {
    const universe = ingest.universe(key)!;
    const values = new Uint8Array(512);
    const owners = new Uint8Array(512);
    universe.sweep(now, TIMEOUT);
    universe.merge(now, TIMEOUT);
    shared.read(universe.row, values, owners);
    return [values[slot]!, owners[slot]!];
  };
  return { ingest, send, at, discovered, polls, shared, came, synced, others };
}

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

describe('start codes', () => {
  test('only 0x00 and 0xDD have a say; others share the numbering and are told apart', () => {
    const { send, at, ingest } = bench();
    send(0, 7);
    for (let i = 1; i <= 40; i += 1) {
      const text = Uint8Array.of(1, 40, ...[...`Call ${i}`].map((one) => one.charCodeAt(0)));
      send(i * 20, 7, i % 2 === 0 ? { slots: Uint8Array.of(i) } : { startCode: 0x17, slots: text });
    }
    send(810, 7, { startCode: 0xcc, slots: Uint8Array.of(99) });
    expect(at(820, 0)[0]).toBe(40);
    const [stream] = ingest.universe(1)!.report(820, TIMEOUT, 0);
    expect(stream).toMatchObject({ missing: 0, late: 0, packets: 42, slotCount: 1, levels: true });
    expect(stream!.startCodes.map(({ code, packets, says }) => [code, packets, says])).toEqual([
      [0x17, 20, 'Page 1: Call 39'],
      [0xcc, 1, ''],
    ]);
  });

  test('who sends nothing but other start codes, or stops sending levels, has no say', () => {
    const { send, at, ingest } = bench();
    send(0, 7, { startCode: 0xdd, slots: new Uint8Array(512).fill(200) });
    send(0, 8);
    expect(at(1, 0)).toEqual([8, 1]);
    expect(ingest.universe(1)!.report(1, TIMEOUT, 0)[0]).toMatchObject({ levels: false });
    for (let now = 0; now <= 4000; now += 500) send(now + 10, 8, { startCode: 0x17 });
    expect(at(4020, 0)).toEqual([0, NOBODY]);
  });

  test('ArtNzs is told apart by its start code', () => {
    const { ingest, at } = bench();
    const key = wireKey({ protocol: 'artnet', number: 8 });
    const nzs = Buffer.from(
      encodeDmx({ sequence: 3, physical: 0x17, portAddress: 8, slots: Uint8Array.of(2, 0, 72, 105) }),
    );
    nzs.writeUInt16LE(ArtNet.OpNzs, 8);
    ingest.artnet(nzs, '127.0.0.21', 'others', 0, 5);
    expect(at(6, 0, key)).toEqual([0, NOBODY]);
    expect(ingest.universe(key)!.report(6, TIMEOUT, 0)).toMatchObject([
      { levels: false, startCodes: [{ code: 0x17, packets: 1, says: 'Page 2: Hi' }] },
    ]);
  });
});

describe('who is who', () => {
  const packet = (sequence: number, level: number) =>
    Buffer.from(encodeData(levelsFrom({ cid: CID, universe: 1, sequence, slots: Uint8Array.of(level) })));

  test('two senders that take turns under one component id are two, and nothing is lost', () => {
    const { ingest } = bench();
    for (let i = 0; i < 40; i += 1) {
      ingest.sacn(packet(i, 10), '127.0.0.21', 5000, i * 20);
      ingest.sacn(packet(100 + i, 20), '127.0.0.22', 5000, i * 20 + 7);
    }
    const streams = ingest.universe(1)!.report(810, TIMEOUT, 0);
    expect(streams.map(({ address, twin }) => [address, twin]).sort()).toEqual([
      ['127.0.0.21', true],
      ['127.0.0.22', true],
    ]);
    for (const { missing } of streams) expect(missing).toBeLessThan(3);
  });

  test('a sender that moves to another address, begins anew or has two sockets is one', () => {
    const { ingest } = bench();
    for (let i = 0; i < 20; i += 1) ingest.sacn(packet(i, 1), '127.0.0.21', 5000, i * 20);
    for (let i = 0; i < 20; i += 1) ingest.sacn(packet(200 + i, 1), '127.0.0.22', 6000, 400 + i * 20);
    for (let i = 0; i < 20; i += 1) ingest.sacn(packet(220 + i, 1), '127.0.0.22', 6000 + (i % 2), 800 + i * 20);
    expect(ingest.universe(1)!.report(1200, TIMEOUT, 0)).toMatchObject([
      { address: '127.0.0.22', twin: false, missing: 0 },
    ]);
  });

  test('a sender that sends by IPv4 and IPv6 alike is one, of which either may fail', () => {
    const { ingest } = bench();
    for (let i = 0; i < 20; i += 1) {
      if (i < 15) ingest.sacn(packet(i, i), '10.0.0.5', 5000, i * 20);
      ingest.sacn(packet(i, i), 'fe80::5%eth0', 5001, i * 20 + 1);
    }
    expect(ingest.universe(1)!.report(400, TIMEOUT, 0)).toMatchObject([
      { address: '10.0.0.5', ipv6: true, twin: false, packets: 20, missing: 0, repeats: 0 },
    ]);
    expect(ingest.universe(1)!.streams[0]!.values[0]).toBe(19);
  });

  test('a sender that sends by multicast and unicast alike is one stream without repeats, and either may fail', () => {
    const { ingest } = bench();
    for (let i = 0; i < 30; i += 1) {
      if (i < 20) ingest.sacn(packet(i, i), '127.0.0.21', 5000, i * 20, 1);
      // The copies come by another socket of ours, the second half from another port of the sender.
      ingest.sacn(packet(i, i), '127.0.0.21', i % 2 === 0 ? 5000 : 5001, i * 20 + 1, 0);
    }
    expect(ingest.universe(1)!.report(600, TIMEOUT, 0)).toMatchObject([
      { address: '127.0.0.21', twin: false, packets: 30, missing: 0, repeats: 0, late: 0 },
    ]);
    expect(ingest.universe(1)!.streams[0]!.values[0]).toBe(29);
  });

  test('a name is read again as its packets change', () => {
    const { send, ingest } = bench();
    send(0, 7);
    send(20, 7, { sourceName: 'Other' });
    send(600, 7, { sourceName: 'Renamed\u0007 desk' });
    expect(ingest.universe(1)!.streams[0]!.name).toBe('Renamed desk');
  });

  test('two inputs of one Art-Net sender are told apart', () => {
    const { ingest, at } = bench();
    const dmx = (physical: number, level: number) =>
      ingest.artnet(
        Buffer.from(encodeDmx({ sequence: 0, physical, portAddress: 8, slots: Uint8Array.of(level, 0) })),
        '127.0.0.21',
        'others',
        0,
        0,
      );
    dmx(0, 10);
    dmx(1, 20);
    dmx(0, 11);
    const key = wireKey({ protocol: 'artnet', number: 8 });
    expect(
      ingest
        .universe(key)!
        .report(1, TIMEOUT, 0)
        .map(({ physical, packets }) => [physical, packets]),
    ).toEqual([
      [0, 2],
      [1, 1],
    ]);
    expect(at(1, 0, key)[0]).toBe(20);
  });
});

test('time, diagnostics, triggers and commands are heard', () => {
  const { ingest, others } = bench();
  const send = (opCode: number, ...rest: number[]) => {
    const bytes = Buffer.from([...ArtNet.ARTNET_ID, opCode & 0xff, opCode >> 8, 0, 14, ...rest]);
    ingest.artnet(bytes, '127.0.0.21', 'others', 0, 0);
  };
  const ascii = (text: string) => [...text].map((one) => one.charCodeAt(0));
  send(ArtNet.OpTimeCode, 0, 0, 12, 34, 56, 1, 1);
  send(ArtNet.OpDiagData, 0, 0x40, 0, 0, 0, 5, ...ascii('Warm'), 0);
  send(ArtNet.OpTrigger, 0, 0, 0xff, 0xff, 1, 5);
  send(ArtNet.OpCommand, 0xff, 0xff, 0, 9, ...ascii('Swout=1&'), 0);
  send(ArtNet.OpTimeCode, 0);
  expect(others.map(([kind, , says]) => [kind, says])).toEqual([
    ['timecode', '01:56:34:12, EBU, 25 a second'],
    ['diagnostics', 'medium: Warm'],
    ['trigger', 'macro 5'],
    ['command', 'Swout=1&'],
  ]);
  expect(ingest.rejected).toEqual({ 'too-short': 1 });
});

test('as many sources of synchronisation as can be told apart; what is beyond is counted, and the long silent make room', () => {
  const { ingest } = bench();
  const sync = (from: number, now: number) => {
    const cid = new Uint8Array(16).fill(from & 255);
    cid[0] = from >> 8;
    ingest.sacn(Buffer.from(encodeSync({ cid, sequence: 1, syncAddress: 90 })), '127.0.0.21', 5568, now);
  };
  for (let from = 0; from < 513; from += 1) sync(from, 0);
  expect([ingest.syncs.report(1, 0).length, ingest.rejected]).toEqual([512, { 'too-many-syncs': 1 }]);
  sync(512, 61_000);
  expect([ingest.syncs.report(61_000, 0).length, ingest.rejected]).toEqual([512, { 'too-many-syncs': 1 }]);
});

test('what comes by a plug is a stream like any other: named, merged by priority, and lost when it stops', () => {
  const { ingest, send, at, came } = bench();
  const frame = (level: number, over = {}) => ({
    ...{ key: 1, id: 'plug-a', name: 'Tally plug', priority: 120, slots: new Uint8Array(512).fill(level) },
    ...over,
  });
  send(0, 7);
  ingest.plugged(frame(90), 10);
  expect(came).toEqual([1, 1]);
  const { streams } = ingest.universe(1)!;
  expect(
    streams
      .map((one) => one.report(20, TIMEOUT, 0))
      .map(({ name, address, priority, own }) => [name, address, priority, own]),
  ).toEqual([
    ['Desk 7', '127.0.0.21', 100, false],
    ['Tally plug', 'plug', 120, false],
  ]);
  expect(at(20, 0)).toEqual([90, streams[1]!.mark]);
  // Each frame is the next, however many; another plug is another stream.
  for (let i = 0; i < 600; i += 1) ingest.plugged(frame(i % 256), 30 + i * 25);
  expect(streams[1]!.report(15_010, TIMEOUT, 0)).toMatchObject({ packets: 601, missing: 0, late: 0 });
  ingest.plugged(frame(3, { id: 'plug-b', priority: 100 }), 15_011);
  expect(streams).toHaveLength(3);
  send(15_000 + TIMEOUT, 7);
  expect(at(15_020 + TIMEOUT, 0)[0]).toBe(7);
});

test('a plug on an Art-Net universe is a stream there, beside those of the network', () => {
  const { ingest, at } = bench();
  const key = wireKey({ protocol: 'artnet', number: 4 });
  const slots = new Uint8Array(512).fill(60);
  ingest.plugged({ key, id: 'p', name: 'Tally plug', priority: 100, slots }, 10);
  ingest.artnet(
    Buffer.from(encodeDmx({ sequence: 1, physical: 0, portAddress: 4, slots: new Uint8Array(512).fill(50) })),
    ...(['10.0.0.9', 'others', 0, 11] as const),
  );
  expect(at(20, 0, key)[0]).toBe(60);
  expect(ingest.universe(key)!.streams).toHaveLength(2);
});
