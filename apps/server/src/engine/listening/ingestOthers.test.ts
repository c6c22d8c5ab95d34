/** What comes beside levels: start codes, who is who, time code and diagnostics, plugs. */
import { wireKey } from '@taxiarch/core/base/address';
import { ArtNet, encodeDmx } from '@taxiarch/core/protocol/artnet';
import { NOBODY } from '@taxiarch/core/signal/merge';
import { encodeData, encodeSync } from '@taxiarch/core/protocol/sacn';
import { levelsFrom } from '../../testing/wire';
import { CID, TIMEOUT, bench } from './testing/bench';

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
