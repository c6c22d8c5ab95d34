/** What Art-Net 4 fixes of each packet: where it ends, which bits of its bytes say what, and which numbers are too many. */
import {
  ArtNet,
  Subscribers,
  blankPollReply,
  decodeArtNet,
  decodeArtRdm,
  decodeArtSync,
  decodeDmx,
  decodeNzs,
  decodePoll,
  decodePollReply,
  encodeAddress,
  encodeArtRdm,
  encodeArtSync,
  encodeDmx,
  encodeInput,
  encodeIpProg,
  encodeIpProgReply,
  encodePoll,
  encodePollReply,
  encodeRdmSub,
  encodeTod,
  encodeTodControl,
  encodeTodRequest,
  portsOf,
  readOpCode,
  readOther,
  type ArtPollReply,
  type DevicePort,
} from '.';

const told = (result: { ok: boolean; reason?: string }): string => (result.ok ? 'accepted' : result.reason!);
const reason = (packet: Uint8Array): string => told(decodeArtNet(packet));
const rdmReason = (packet: Uint8Array): string => told(decodeArtRdm(packet));
const set = (packet: Uint8Array, at: number, ...bytes: number[]): Uint8Array => {
  const copy = packet.slice();
  copy.set(bytes, at);
  return copy;
};
const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);

const mac = Uint8Array.of(2, 0x7f, 0xf1, 0, 0, 9);
const page = blankPollReply('10.0.0.9', mac);
const dmx = (count: number) =>
  encodeDmx({ sequence: 9, physical: 1, portAddress: 0x7fff, slots: new Uint8Array(count).fill(5) });
const ips = { ip: '10.1.2.3', mask: '255.0.0.0', gateway: '10.0.0.1' };
const tod = (uids: number, full = true) =>
  encodeTod(
    Array.from({ length: uids }, (_, i) => `7ff1:${i.toString(16).padStart(8, '0')}`),
    { port: 2, bindIndex: 3, portAddress: 0x7123, full },
  );

describe('each packet is as long as its kind asks', () => {
  test.each<readonly [string, Uint8Array, shortest: number, (packet: Uint8Array) => string]>([
    ['ArtPoll', encodePoll(), 14, reason],
    ['ArtPollReply', encodePollReply(page), 201, reason],
    ['ArtSync', encodeArtSync(), 14, reason],
    ['ArtAddress', encodeAddress({}), 107, reason],
    ['ArtInput', encodeInput({ bindIndex: 1, ports: 4, disabled: [] }), 20, reason],
    ['ArtIpProg', encodeIpProg({ command: 0, ...ips }), 34, reason],
    ['ArtIpProgReply', encodeIpProgReply({ ...ips, port: 1, dhcp: false }), 34, reason],
    ['ArtTodRequest', encodeTodRequest([]), 24, rdmReason],
    ['ArtTodData', tod(0)[0]!, 28, rdmReason],
    ['ArtTodControl', encodeTodControl({ command: 1, portAddress: 5 }), 24, rdmReason],
    [
      'ArtRdm',
      encodeArtRdm({ portAddress: 5, fifoAvailable: 1, fifoMost: 2, packet: new Uint8Array(2) }),
      26,
      rdmReason,
    ],
  ])('%s', (_, packet, shortest, judge) => {
    expect(judge(packet)).toBe('accepted');
    expect(judge(packet.subarray(0, shortest))).toBe('accepted');
    for (const length of range(10, shortest - 1))
      expect([length, judge(packet.subarray(0, length))]).toEqual([length, 'too-short']);
    expect(judge(packet.subarray(0, 9))).toBe('too-short');
    for (const at of range(0, 7)) expect(judge(set(packet, at, 0x42))).toBe('not-artnet');
  });

  test('a packet that is another kind is not taken for this one', () => {
    expect(told(decodePoll(encodeArtSync()))).toBe('unknown-opcode');
    expect(told(decodeArtSync(encodePoll()))).toBe('unknown-opcode');
    expect(told(decodePoll(new Uint8Array(30)))).toBe('not-artnet');
    expect(readOpCode(encodePoll().subarray(0, 10))).toBe(0x2000);
  });

  test('versions before 14 are refused, of all packets but ArtPollReply, which has none', () => {
    for (const packet of [encodePoll(), dmx(2), encodeArtSync(), encodeAddress({})]) {
      expect(reason(set(packet, 10, 0, 13))).toBe('old-version');
      expect(reason(set(packet, 10, 0, 15))).toBe('accepted');
    }
    expect([...encodePollReply(page).subarray(10, 14)]).toEqual([10, 0, 0, 9]);
  });

  test('an address of more than four parts is cut', () => {
    const answer = encodeIpProgReply({ ...ips, ip: '10.1.2.3.77', port: 1, dhcp: false });
    expect([...answer.subarray(16, 24)]).toEqual([10, 1, 2, 3, 255, 0, 0, 0]);
  });
});

test('ArtDmx has 1 to 512 slots, and as many as it says', () => {
  expect(reason(dmx(512))).toBe('accepted');
  expect(dmx(700)).toHaveLength(530);
  expect(dmx(0)).toHaveLength(20);
  expect(reason(set(dmx(2), 16, 0, 0))).toBe('bad-length');
  expect(decodeDmx(set(dmx(2), 16, 0, 1))).toMatchObject({ ok: true, value: { slots: Uint8Array.of(5) } });
  expect(reason(set(dmx(512), 16, 2, 1))).toBe('bad-length');
  const longer = new Uint8Array(600);
  longer.set(dmx(512));
  expect(reason(set(longer, 16, 2, 1))).toBe('bad-length');
  expect(reason(set(dmx(2), 16, 0, 3))).toBe('bad-length');
  expect(reason(dmx(2).subarray(0, 17))).toBe('too-short');
  // The top bit of the net says nothing.
  expect(decodeDmx(set(dmx(2), 15, 0xff))).toMatchObject({ value: { portAddress: 0x7fff } });
});

test('ArtNzs has its start code, and 1 to 512 slots', () => {
  const nzs = (count: number, says = count) => {
    const packet = new Uint8Array(18 + count).fill(6);
    packet.set(ArtNet.ARTNET_ID);
    packet.set([ArtNet.OpNzs & 0xff, ArtNet.OpNzs >> 8, 0, 14, 1, 0xcc, 0x34, 0xf2, says >> 8, says & 0xff], 8);
    return packet;
  };
  expect(decodeNzs(nzs(3))).toEqual({
    ok: true,
    value: { startCode: 0xcc, portAddress: 0x7234, slots: Uint8Array.of(6, 6, 6) },
  });
  for (const [packet, why] of [
    [nzs(1), 'accepted'],
    [nzs(512), 'accepted'],
    [nzs(513), 'bad-length'],
    [nzs(2, 0), 'bad-length'],
    [nzs(2, 3), 'bad-length'],
    [nzs(2).subarray(0, 17), 'too-short'],
    [dmx(2), 'unknown-opcode'],
  ] as const)
    expect(told(decodeNzs(packet))).toBe(why);
});

test('a short poll has no target and no maker; a whole one says what it was given', () => {
  const poll = encodePoll({
    flags: 0x26,
    diagnosticsPriority: 0x40,
    targetTop: 0x1234,
    targetBottom: 0x0102,
    estaManufacturer: 0x7ff0,
    oem: 0x0304,
  });
  expect([...poll.subarray(12)]).toEqual([0x26, 0x40, 0x12, 0x34, 1, 2, 0x7f, 0xf0, 3, 4]);
  expect(decodePoll(poll)).toEqual({
    ok: true,
    value: {
      ...{ kind: 'poll', flags: 0x26, diagnosticsPriority: 0x40, targetTop: 0x1234, targetBottom: 0x0102 },
      ...{ estaManufacturer: 0x7ff0, oem: 0x0304 },
    },
  });
  expect(decodePoll(poll.subarray(0, 14))).toMatchObject({
    value: { flags: 0x26, targetTop: 0, targetBottom: 0, estaManufacturer: 0, oem: 0 },
  });
  // A word that is half there is not there.
  expect(decodePoll(poll.subarray(0, 17))).toMatchObject({ value: { targetTop: 0x1234, targetBottom: 0 } });
  expect(decodePoll(poll.subarray(0, 18))).toMatchObject({ value: { targetBottom: 0x0102, estaManufacturer: 0 } });
});

describe('each bit of a port says one thing', () => {
  const NOTHING = { type: 0, goodInput: 0, goodOutputA: 0, goodOutputB: 0, swIn: 5, swOut: 6 };
  const ports = (port: Partial<ArtPollReply['ports'][number]>, portCount = 1): DevicePort[] =>
    portsOf({ kind: 'pollReply', ...page, portCount, ports: range(1, 4).map(() => ({ ...NOTHING, ...port })) });
  const says = (port: DevicePort | undefined) =>
    (['active', 'merging', 'ltp', 'sacn', 'rdm', 'disabled'] as const).filter((what) => port?.[what]);

  test.each<readonly [goodOutputA: number, string[]]>([
    [0x00, []],
    [0x80, ['active']],
    [0x08, ['merging']],
    [0x02, ['ltp']],
    [0x01, ['sacn']],
    [0x74, []],
  ])('GoodOutputA %s', (goodOutputA, what) => {
    const [port] = ports({ type: 0x80, goodOutputA, goodOutputB: 0x80 });
    expect(port).toMatchObject({ direction: 'out', portAddress: 6 });
    expect(says(port)).toEqual(what);
  });

  test('GoodOutputB tells that there is no RDM', () => {
    expect(says(ports({ type: 0x80, goodOutputB: 0x80 })[0])).toEqual([]);
    expect(says(ports({ type: 0x80, goodOutputB: 0x7f })[0])).toEqual(['rdm']);
  });

  test.each<readonly [goodInput: number, string[]]>([
    [0x00, []],
    [0x80, ['active']],
    [0x08, ['disabled']],
    [0x01, ['sacn']],
    [0x76, []],
  ])('GoodInput %s', (goodInput, what) => {
    const [port] = ports({ type: 0x40, goodInput });
    expect(port).toMatchObject({ direction: 'in', portAddress: 5 });
    expect(says(port)).toEqual(what);
  });

  test('one that is both ways is told twice, one that is neither not at all; of a page so many as it counts', () => {
    expect(ports({ type: 0xc0 }).map(({ direction }) => direction)).toEqual(['out', 'in']);
    expect(ports({ type: 0x3f })).toEqual([]);
    expect(ports({ type: 0x80 }, 3).map(({ index }) => index)).toEqual([0, 1, 2]);
  });
});

test('a page has four ports at most, and a blank one says nothing', () => {
  expect(told(decodePollReply(encodePollReply({ ...page, portCount: 4 })))).toBe('accepted');
  expect(told(decodePollReply(encodePollReply({ ...page, portCount: 5 })))).toBe('bad-port-count');
  const many = range(1, 6).map((type) => ({ type, goodInput: 0, goodOutputA: 0, goodOutputB: 0, swIn: 0, swOut: 0 }));
  expect([...encodePollReply({ ...page, ports: many }).subarray(174, 182)]).toEqual([1, 2, 3, 4, 0, 0, 0, 0]);
  expect(page).toMatchObject({ portName: '', longName: '', nodeReport: '', ports: [] });
  expect(told(decodeArtNet(encodeInput({ bindIndex: 1, ports: 4, disabled: [true] })))).toBe('accepted');
  expect(told(decodeArtNet(encodeInput({ bindIndex: 1, ports: 5, disabled: [] })))).toBe('bad-port-count');
  expect(encodeInput({ bindIndex: 1, ports: 4, disabled: range(1, 9).map(() => true) })).toHaveLength(20);
});

describe('tables of lamps', () => {
  test('a request names 32 ports at most, and as many as it says', () => {
    const full = encodeTodRequest(range(0x100, 0x11f));
    expect(decodeArtRdm(full)).toMatchObject({ value: { portAddresses: range(0x100, 0x11f) } });
    expect(rdmReason(set(full, 23, 33))).toBe('bad-length');
    expect(rdmReason(full.subarray(0, 55))).toBe('bad-length');
    const long = new Uint8Array(80);
    long.set(full);
    expect(rdmReason(set(long, 23, 33))).toBe('bad-length');
    expect(encodeTodRequest([])[21]).toBe(0);
  });

  test('a part holds 200 UIDs at most, and as many as it says', () => {
    const [part] = tod(200);
    expect(decodeArtRdm(part!)).toMatchObject({ value: { portAddress: 0x7123, full: true, total: 200 } });
    expect(rdmReason(part!.subarray(0, part!.length - 1))).toBe('bad-length');
    const long = new Uint8Array(part!.length + 6);
    long.set(part!);
    expect(rdmReason(set(long, 27, 201))).toBe('bad-length');
    expect(decodeArtRdm(tod(1, false)[0]!)).toMatchObject({ value: { full: false } });
  });

  test('what is none of these is not read, and versions count here too', () => {
    expect(rdmReason(encodePoll())).toBe('unknown-opcode');
    expect(rdmReason(new Uint8Array(40))).toBe('not-artnet');
    expect(rdmReason(set(encodeTodControl({ command: 1, portAddress: 1 }), 10, 0, 13))).toBe('old-version');
    const sub = encodeRdmSub({
      ...{ uid: '7ff1:00000001', commandClass: 0x21, pid: 3 },
      subDevice: 2,
      count: 1,
      values: [7],
    });
    expect(rdmReason(sub.subarray(0, 31))).toBe('too-short');
    expect(decodeArtRdm(sub.subarray(0, 33))).toMatchObject({ value: { values: [] } });
  });
});

describe('who asked to be told of changes', () => {
  const asks = { flags: 0x02 };
  test('is told as long as it polls', () => {
    const some = new Subscribers();
    some.note({ flags: 0xfd }, '10.0.0.1', 0);
    some.note(asks, '10.0.0.2', 0);
    expect(some.addresses(10_000)).toEqual(['10.0.0.2']);
    some.note(asks, '10.0.0.2', 10_000);
    expect(some.addresses(20_000)).toEqual(['10.0.0.2']);
    expect(some.addresses(20_001)).toEqual([]);
  });

  test('sixty-four at once; those that are among them stay, and a place that is free is taken', () => {
    const some = new Subscribers();
    for (const n of range(1, 65)) some.note(asks, `10.0.0.${n}`, 0);
    expect(some.addresses(0)).toHaveLength(64);
    expect(some.addresses(0)).not.toContain('10.0.0.65');
    some.note(asks, '10.0.0.1', 9000);
    some.note(asks, '10.0.0.65', 10_001);
    expect(some.addresses(10_001)).toEqual(['10.0.0.1', '10.0.0.65']);
  });
});

test('diagnostics are read in words, and refused where they end too soon', () => {
  const text = 'Fan stopped';
  const packet = new Uint8Array(18 + text.length);
  packet.set(ArtNet.ARTNET_ID);
  packet.set([ArtNet.OpDiagData & 0xff, ArtNet.OpDiagData >> 8, 0, 14, 0, 0xe0, 0, 0, 0, text.length], 8);
  packet.set(new TextEncoder().encode(text), 18);
  expect(readOther('diagnostics', packet)).toEqual({ ok: true, value: 'critical: Fan stopped' });
  expect(readOther('diagnostics', set(packet, 13, 1))).toMatchObject({
    value: 'no priority that is known: Fan stopped',
  });
  expect(told(readOther('diagnostics', packet.subarray(0, 17)))).toBe('too-short');
  expect(told(readOther('timecode', packet))).toBe('unknown-opcode');
});
