import fc from 'fast-check';
import {
  ArtNet,
  blankPollReply,
  decodeArtNet,
  encodeAddress,
  encodeArtSync,
  encodeDmx,
  encodeInput,
  encodeIpProg,
  encodeIpProgReply,
  encodePoll,
  encodePollReply,
  portsOf,
  type ArtPollReply,
} from '.';

const byte = fc.integer({ min: 0, max: 255 });
const word = fc.integer({ min: 0, max: 0xffff });
const bytes = (length: number) => fc.uint8Array({ minLength: length, maxLength: length });
const ip = fc.tuple(byte, byte, byte, byte).map((parts) => parts.join('.'));
const ascii = (most: number) => fc.string({ unit: fc.constantFrom(...'abc XYZ.-09'), maxLength: most });

const port = fc.record({ type: byte, goodInput: byte, goodOutputA: byte, goodOutputB: byte, swIn: byte, swOut: byte });
const reply = fc.record({
  ip,
  port: word,
  version: word,
  netSwitch: byte,
  subSwitch: byte,
  oem: word,
  ubeaVersion: byte,
  status1: byte,
  estaManufacturer: word,
  portName: ascii(17),
  longName: ascii(63),
  nodeReport: ascii(63),
  portCount: fc.integer({ min: 0, max: 4 }),
  ports: fc.array(port, { minLength: 4, maxLength: 4 }),
  acnPriority: byte,
  swMacro: byte,
  swRemote: byte,
  style: byte,
  mac: bytes(6),
  bindIp: ip,
  bindIndex: byte,
  status2: byte,
  status3: byte,
  defaultResponder: bytes(6),
  user: word,
  refreshRate: word,
  backgroundQueuePolicy: byte,
});

const reason = (packet: Uint8Array): string => {
  const decoded = decodeArtNet(packet);
  return decoded.ok ? 'accepted' : decoded.reason;
};

const HELLO = '4172742d4e657400';

test('poll, dmx and sync are byte for byte those of Art-Net 4', () => {
  const hex = (packet: Uint8Array) => Buffer.from(packet).toString('hex');
  expect(hex(encodePoll())).toBe(`${HELLO}0020000e0000000000000000` + '00ff');
  expect(hex(encodeDmx({ sequence: 3, physical: 1, portAddress: 0x0112, slots: Uint8Array.of(1, 2) }))).toBe(
    `${HELLO}0050000e03011201` + '00020102',
  );
  expect(hex(encodeArtSync())).toBe(`${HELLO}0052000e0000`);
});

test('poll replies fill 239 bytes and come back as they went, every field', () => {
  fc.assert(
    fc.property(reply, (message) => {
      const packet = encodePollReply(message);
      expect(packet).toHaveLength(239);
      expect(decodeArtNet(packet)).toEqual({ ok: true, value: { kind: 'pollReply', ...message } });
    }),
  );
});

test('fields of a poll reply stand where the standard puts them', () => {
  const packet = encodePollReply({
    ...blankPollReply('127.0.0.31', Uint8Array.of(2, 0x7f, 0xf1, 0, 0, 0x31)),
    portName: 'Wheelhouse',
    longName: 'Wheelhouse node',
    style: ArtNet.StNode,
    bindIndex: 2,
    estaManufacturer: 0x7ff1,
    refreshRate: 44,
  });
  expect([...packet.subarray(8, 16)]).toEqual([0x00, 0x21, 127, 0, 0, 31, 0x36, 0x19]);
  expect([packet[24], packet[25]]).toEqual([0xf1, 0x7f]);
  expect(Buffer.from(packet.subarray(26, 36)).toString()).toBe('Wheelhouse');
  expect(Buffer.from(packet.subarray(44, 59)).toString()).toBe('Wheelhouse node');
  expect([...packet.subarray(201, 207)]).toEqual([2, 0x7f, 0xf1, 0, 0, 0x31]);
  expect([packet[211], packet[226], packet[227]]).toEqual([2, 0, 44]);
});

test('dmx comes back as it went; an odd number of slots gains a zero', () => {
  fc.assert(
    fc.property(
      byte,
      byte,
      fc.integer({ min: 0, max: 0x7fff }),
      fc.uint8Array({ minLength: 1, maxLength: 512 }),
      (sequence, physical, portAddress, slots) => {
        const decoded = decodeArtNet(encodeDmx({ sequence, physical, portAddress, slots }));
        const even = new Uint8Array(slots.length + (slots.length % 2));
        even.set(slots);
        expect(decoded).toEqual({ ok: true, value: { kind: 'dmx', sequence, physical, portAddress, slots: even } });
      },
    ),
  );
});

test('any bytes at all decode or are refused by name; nothing is thrown', () => {
  const headed = fc
    .tuple(
      fc.constantFrom(0x2000, 0x2100, 0x5000, 0x5200, 0x6000, 0x7000, 0xf800, 0xf900, 0x1234),
      fc.uint8Array({ maxLength: 600 }),
    )
    .map(([opCode, rest]) => Uint8Array.from([...ArtNet.ARTNET_ID, opCode & 0xff, opCode >> 8, ...rest]));
  fc.assert(
    fc.property(fc.oneof(fc.uint8Array({ maxLength: 600 }), headed), (packet) => {
      const decoded = decodeArtNet(packet);
      expect(decoded.ok || decoded.reason.length > 0).toBe(true);
    }),
    { numRuns: 500 },
  );
});

test.each([
  ['too-short', Uint8Array.of(0x41)],
  ['too-short', encodePoll().subarray(0, 13)],
  ['not-artnet', new Uint8Array(40)],
  ['unknown-opcode', Uint8Array.from([...ArtNet.ARTNET_ID, 0x34, 0x12, 0, 14])],
  ['old-version', Uint8Array.from([...ArtNet.ARTNET_ID, 0, 0x20, 0, 13, 0, 0])],
  ['bad-length', encodeDmx({ sequence: 0, physical: 0, portAddress: 0, slots: new Uint8Array(8) }).subarray(0, 22)],
  ['bad-port-count', encodePollReply({ ...blankPollReply('127.0.0.1', new Uint8Array(6)), portCount: 5 })],
])('refused as %s', (why, packet) => expect(reason(packet)).toBe(why));

test('replies of before Art-Net 4 are read, what they lack as zero', () => {
  const old = encodePollReply({
    ...blankPollReply('127.0.0.9', Uint8Array.of(1, 2, 3, 4, 5, 6)),
    bindIndex: 7,
  }).subarray(0, 207);
  const decoded = decodeArtNet(old);
  expect(decoded.ok && (decoded.value as ArtPollReply).bindIndex).toBe(0);
});

test('ports of a page have whole Port-Addresses and say what they do', () => {
  const out = { type: ArtNet.PORT_CAN_OUTPUT, goodInput: 0, goodOutputA: 0x8b, goodOutputB: 0, swIn: 0, swOut: 3 };
  const input = { type: ArtNet.PORT_CAN_INPUT, goodInput: 0x80, goodOutputA: 0, goodOutputB: 0, swIn: 9, swOut: 0 };
  const blank = { type: 0, goodInput: 0, goodOutputA: 0, goodOutputB: 0, swIn: 0, swOut: 0 };
  const page: ArtPollReply = {
    kind: 'pollReply',
    ...blankPollReply('127.0.0.9', new Uint8Array(6)),
    netSwitch: 1,
    subSwitch: 2,
    portCount: 2,
    ports: [out, input, blank, blank],
  };
  expect(portsOf(page)).toEqual([
    {
      index: 0,
      direction: 'out',
      portAddress: 0x123,
      active: true,
      merging: true,
      ltp: true,
      sacn: true,
      rdm: true,
      disabled: false,
    },
    {
      index: 1,
      direction: 'in',
      portAddress: 0x129,
      active: true,
      merging: false,
      ltp: false,
      sacn: false,
      rdm: false,
      disabled: false,
    },
  ]);
});

const nibble = fc.array(byte, { minLength: 4, maxLength: 4 });

test('Address, Input and IpProg come back as they were sent', () => {
  const back = (packet: Uint8Array) => {
    const decoded = decodeArtNet(packet);
    return decoded.ok ? decoded.value : decoded.reason;
  };
  const address = fc.record({
    netSwitch: byte,
    bindIndex: byte,
    portName: ascii(17),
    longName: ascii(63),
    swIn: nibble,
    swOut: nibble,
    subSwitch: byte,
    acnPriority: byte,
    command: byte,
  });
  fc.assert(fc.property(address, (sent) => expect(back(encodeAddress(sent))).toEqual({ kind: 'address', ...sent })));
  const input = fc.record({
    bindIndex: byte,
    ports: fc.integer({ min: 0, max: 4 }),
    disabled: fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
  });
  fc.assert(fc.property(input, (sent) => expect(back(encodeInput(sent))).toEqual({ kind: 'input', ...sent })));
  fc.assert(
    fc.property(fc.record({ command: byte, ip, mask: ip, gateway: ip }), (sent) =>
      expect(back(encodeIpProg(sent))).toEqual({ kind: 'ipProg', ...sent }),
    ),
  );
  fc.assert(
    fc.property(fc.record({ ip, mask: ip, gateway: ip, port: word, dhcp: fc.boolean() }), (sent) =>
      expect(back(encodeIpProgReply(sent))).toEqual({ kind: 'ipProgReply', ...sent }),
    ),
  );
});

test('Address leaves alone what is not named, byte for byte', () => {
  const packet = encodeAddress({ bindIndex: 2, command: ArtNet.AcLedLocate });
  expect(packet).toHaveLength(107);
  expect([...packet.subarray(8, 14)]).toEqual([0x00, 0x60, 0, 14, 0x7f, 2]);
  expect([...packet.subarray(14, 96)].every((one) => one === 0)).toBe(true);
  expect([...packet.subarray(96)]).toEqual([...new Array<number>(9).fill(0x7f), 255, 0x04]);
});

test('IpProg and its answer stand in the bytes that the standard names', () => {
  const ask = encodeIpProg({ command: 0x86, ip: '10.0.0.5', mask: '255.0.0.0', gateway: '10.0.0.1' });
  expect(ask).toHaveLength(34);
  expect([...ask.subarray(8)]).toEqual([
    0, 0xf8, 0, 14, 0, 0, 0x86, 0, 10, 0, 0, 5, 255, 0, 0, 0, 0, 0, 10, 0, 0, 1, 0, 0, 0, 0,
  ]);
  const answer = encodeIpProgReply({
    ip: '10.0.0.5',
    mask: '255.0.0.0',
    gateway: '10.0.0.1',
    port: 0x1936,
    dhcp: true,
  });
  expect([...answer.subarray(8)]).toEqual([
    0, 0xf9, 0, 14, 0, 0, 0, 0, 10, 0, 0, 5, 255, 0, 0, 0, 0x19, 0x36, 0x40, 0, 10, 0, 0, 1, 0, 0,
  ]);
});
