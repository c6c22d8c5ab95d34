import fc from 'fast-check';
import {
  Sacn,
  decodeSacn,
  encodeData,
  encodeDiscovery,
  encodeDiscoveryPages,
  encodeSync,
  formatCid,
  parseCid,
  type SacnData,
} from '.';

const bytes = (length: number) => fc.uint8Array({ minLength: length, maxLength: length });
const byte = fc.integer({ min: 0, max: 255 });
const universe = fc.integer({ min: 1, max: 63999 });
/** Names that survive a field of 64 bytes: no NUL, at most 63 bytes in UTF-8. */
const name = fc
  .string({ unit: 'grapheme', maxLength: 20 })
  .filter((text) => !text.includes('\0') && new TextEncoder().encode(text).length < 64);

const data = fc.record({
  cid: bytes(16),
  sourceName: name,
  priority: fc.integer({ min: 0, max: 200 }),
  syncAddress: fc.integer({ min: 0, max: 63999 }),
  sequence: byte,
  preview: fc.boolean(),
  terminated: fc.boolean(),
  forceSync: fc.boolean(),
  universe,
  startCode: fc.constantFrom(0x00, 0xdd),
  slots: fc.uint8Array({ maxLength: 512 }),
});

const plain = (over: Partial<SacnData> = {}): Uint8Array =>
  encodeData({
    cid: new Uint8Array(16).fill(7),
    sourceName: 'Bridge desk',
    priority: 100,
    syncAddress: 0,
    sequence: 1,
    preview: false,
    terminated: false,
    forceSync: false,
    universe: 0x0102,
    startCode: 0,
    slots: new Uint8Array(512).fill(0x42),
    ...over,
  });

const reason = (packet: Uint8Array): string => {
  const decoded = decodeSacn(packet);
  return decoded.ok ? 'accepted' : decoded.reason;
};

/** A packet with some bytes changed. */
const spoilt = (packet: Uint8Array, at: number, ...values: number[]): Uint8Array => {
  const copy = packet.slice();
  copy.set(values, at);
  return copy;
};

test('data packets come back as they went', () => {
  fc.assert(
    fc.property(data, (message) => {
      expect(decodeSacn(encodeData(message))).toEqual({ ok: true, value: { kind: 'data', ...message } });
    }),
  );
});

test('a data packet is byte for byte that of E1.31', () => {
  const packet = plain();
  expect(packet).toHaveLength(638);
  expect(Buffer.from(packet.subarray(0, 44)).toString('hex')).toBe(
    `00100000${Buffer.from('ASC-E1.17').toString('hex')}000000726e00000004${'07'.repeat(16)}725800000002`,
  );
  expect(Buffer.from(packet.subarray(44, 56)).toString()).toBe('Bridge desk\0');
  // priority, sync address, sequence, options, universe, DMP layer
  expect(Buffer.from(packet.subarray(108, 127)).toString('hex')).toBe('64000001000102720b02a1000000010201' + '0042');
});

test('sync and discovery come back as they went', () => {
  fc.assert(
    fc.property(bytes(16), byte, universe, (cid, sequence, syncAddress) => {
      const packet = encodeSync({ cid, sequence, syncAddress });
      expect(packet).toHaveLength(49);
      expect(decodeSacn(packet)).toEqual({ ok: true, value: { kind: 'sync', cid, sequence, syncAddress } });
    }),
  );
  fc.assert(
    fc.property(bytes(16), name, fc.uniqueArray(universe, { maxLength: 512 }), (cid, sourceName, list) => {
      const universes = [...list].sort((a, b) => a - b);
      const message = { cid, sourceName, page: 0, lastPage: 0, universes };
      expect(decodeSacn(encodeDiscovery(message))).toEqual({ ok: true, value: { kind: 'discovery', ...message } });
    }),
  );
});

test('a long list of universes goes on pages of 512, sorted, without repeats', () => {
  const universes = Array.from({ length: 1300 }, (_, i) => 1300 - i);
  const pages = encodeDiscoveryPages(new Uint8Array(16), 'Porthole', [...universes, 5, 5]).map(decodeSacn);
  const heard = pages.flatMap((page) => (page.ok && page.value.kind === 'discovery' ? page.value.universes : []));
  expect(pages).toHaveLength(3);
  expect(heard).toEqual(Array.from({ length: 1300 }, (_, i) => i + 1));
});

test('any bytes at all decode or are refused by name; nothing is thrown', () => {
  const shaped = data.chain((message) =>
    fc.tuple(fc.nat(700), byte, fc.nat(700)).map(([at, value, cut]) => {
      const packet = encodeData(message);
      if (at < packet.length) packet[at] = value;
      return packet.subarray(0, packet.length - (cut % packet.length));
    }),
  );
  fc.assert(
    fc.property(fc.oneof(fc.uint8Array({ maxLength: 800 }), shaped), (packet) => {
      const decoded = decodeSacn(packet);
      expect(decoded.ok || decoded.reason.length > 0).toBe(true);
    }),
    { numRuns: 500 },
  );
});

test.each([
  ['too-short', plain().subarray(0, 30)],
  ['wrong-length', plain().subarray(0, 38)],
  ['wrong-length', plain().subarray(0, 600)],
  ['not-sacn', spoilt(plain(), 4, 0x42)],
  ['unknown-root-vector', spoilt(plain(), 21, 9)],
  ['unknown-framing-vector', spoilt(plain(), 43, 9)],
  ['bad-dmp-layer', spoilt(plain(), 117, 9)],
  ['bad-dmp-layer', spoilt(plain(), 123, 0x02, 0x02)],
  ['wrong-length', spoilt(plain(), 123, 0x01, 0x00)],
  ['bad-universe', spoilt(plain(), 113, 0, 0)],
  ['bad-universe', spoilt(plain(), 113, 0xff, 0xff)],
  ['bad-priority', spoilt(plain(), 108, 201)],
  [
    'bad-discovery-list',
    encodeDiscovery({ cid: new Uint8Array(16), sourceName: '', page: 0, lastPage: 0, universes: [5, 5] }),
  ],
  [
    'bad-discovery-list',
    encodeDiscovery({ cid: new Uint8Array(16), sourceName: '', page: 3, lastPage: 1, universes: [] }),
  ],
])('refused as %s', (why, packet) => expect(reason(packet)).toBe(why));

test('a name too long is cut between characters', () => {
  const decoded = decodeSacn(plain({ sourceName: 'é'.repeat(40) }));
  expect(decoded.ok && decoded.value.kind === 'data' && decoded.value.sourceName).toBe('é'.repeat(31));
});

test('CIDs are written and read in the usual form', () => {
  const cid = Uint8Array.from({ length: Sacn.CID_LENGTH }, (_, i) => i * 16);
  expect(formatCid(cid)).toBe('00102030-4050-6070-8090-a0b0c0d0e0f0');
  expect(parseCid(formatCid(cid))).toEqual(cid);
});
