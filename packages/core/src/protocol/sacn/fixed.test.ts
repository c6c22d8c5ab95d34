/** What ANSI E1.31-2018 fixes byte by byte: one that is otherwise is refused by name, and the bounds of each field hold. */
import {
  dataUniverse,
  decodeSacn,
  encodeData,
  encodeDiscovery,
  encodeDiscoveryPages,
  encodeSync,
  formatCid,
  parseCid,
  type SacnData,
  type SacnRejection,
} from '.';

const cid = Uint8Array.from({ length: 16 }, (_, i) => i + 1);
const data = (over: Partial<Omit<SacnData, 'kind'>> = {}) =>
  encodeData({
    ...{ cid, sourceName: 'Stern desk', priority: 120, syncAddress: 0x0a0b, sequence: 250, universe: 0x1234 },
    ...{ preview: false, terminated: false, forceSync: false, startCode: 0 },
    slots: Uint8Array.of(9, 8, 7),
    ...over,
  });
const sync = (over: { sequence?: number; syncAddress?: number } = {}) =>
  encodeSync({ cid, sequence: 200, syncAddress: 7, ...over });
const discovery = (universes = [1, 300, 63_999], page = 0, lastPage = 2) =>
  encodeDiscovery({ cid, sourceName: 'Porthole', page, lastPage, universes });

const reason = (packet: Uint8Array): SacnRejection | 'accepted' => {
  const decoded = decodeSacn(packet);
  return decoded.ok ? 'accepted' : decoded.reason;
};
/** The packet with other bits in one byte */
const otherwise = (packet: Uint8Array, at: number, bits = 0x40): Uint8Array => {
  const copy = packet.slice();
  copy[at]! ^= bits;
  return copy;
};
const set = (packet: Uint8Array, at: number, ...bytes: number[]): Uint8Array => {
  const copy = packet.slice();
  copy.set(bytes, at);
  return copy;
};
const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);

type Fixed = readonly (readonly [first: number, last: number, SacnRejection])[];
/** The root layer, of every packet (5) */
const ROOT: Fixed = [
  [0, 15, 'not-sacn'],
  [16, 17, 'wrong-length'],
  [18, 21, 'unknown-root-vector'],
];

test.each<readonly [string, Uint8Array, Fixed]>([
  [
    'data',
    data(),
    [
      ...ROOT,
      [38, 39, 'wrong-length'],
      [40, 43, 'unknown-framing-vector'],
      [115, 116, 'wrong-length'],
      [117, 122, 'bad-dmp-layer'],
      [124, 124, 'wrong-length'],
    ],
  ],
  ['sync', sync(), [...ROOT, [38, 39, 'wrong-length'], [40, 43, 'unknown-framing-vector']]],
  [
    'discovery',
    discovery(),
    [
      ...ROOT,
      [38, 39, 'wrong-length'],
      [40, 43, 'unknown-framing-vector'],
      [112, 113, 'wrong-length'],
      [114, 117, 'unknown-framing-vector'],
    ],
  ],
])('every fixed byte of a %s packet is looked at', (_, packet, fixed) => {
  expect(reason(packet)).toBe('accepted');
  for (const [first, last, why] of fixed)
    for (const at of range(first, last)) expect([at, reason(otherwise(packet, at))]).toEqual([at, why]);
});

test.each([
  ['data', data({ slots: new Uint8Array() })],
  ['sync', sync()],
  ['discovery', discovery([])],
])('a %s packet that is cut anywhere, or longer by a byte, is refused', (_, packet) => {
  expect(reason(packet)).toBe('accepted');
  for (const length of range(0, packet.length - 1)) expect(reason(packet.subarray(0, length))).not.toBe('accepted');
  expect(reason(packet.subarray(0, 37))).toBe('too-short');
  expect(reason(Uint8Array.of(...packet, 0))).toBe('wrong-length');
});

/** Cut, with its layers saying so: too short for what it claims to be. */
const honestlyCut = (packet: Uint8Array, length: number): Uint8Array => {
  const cut = packet.slice(0, length);
  for (const at of [16, 38]) {
    if (at + 1 >= length) continue;
    cut[at] = 0x70 | ((length - at) >> 8);
    cut[at + 1] = (length - at) & 0xff;
  }
  return cut;
};
test.each([
  ['data', data({ slots: new Uint8Array() }), 125],
  ['sync', sync(), 48],
  ['discovery', discovery([]), 119],
])('a %s packet whose layers end before its fields do is too short', (_, packet, length) => {
  expect(reason(honestlyCut(packet, length))).toBe('too-short');
  expect(reason(honestlyCut(packet, 43))).toBe('too-short');
  expect(reason(honestlyCut(packet, 38))).toBe('too-short');
});

test('an extended packet that carries neither synchronisation nor discovery is not known', () => {
  expect(reason(set(sync(), 43, 3))).toBe('unknown-framing-vector');
  expect(reason(set(sync(), 43, 0))).toBe('unknown-framing-vector');
});

test('universes run from 1 to 63999, priorities to 200, slots to 512', () => {
  expect(reason(data({ universe: 1 }))).toBe('accepted');
  expect(reason(data({ universe: 63_999 }))).toBe('accepted');
  expect(reason(data({ universe: 0 }))).toBe('bad-universe');
  expect(reason(data({ universe: 64_000 }))).toBe('bad-universe');
  expect(reason(data({ priority: 200 }))).toBe('accepted');
  expect(reason(data({ priority: 201 }))).toBe('bad-priority');
  expect(reason(sync({ syncAddress: 1 }))).toBe('accepted');
  expect(reason(sync({ syncAddress: 63_999 }))).toBe('accepted');
  expect(reason(sync({ syncAddress: 0 }))).toBe('bad-universe');
  expect(reason(sync({ syncAddress: 64_000 }))).toBe('bad-universe');
  const most = data({ slots: new Uint8Array(600).fill(3) });
  expect(most).toHaveLength(638);
  expect(reason(most)).toBe('accepted');
  expect(reason(set(most, 123, 0x02, 0x02))).toBe('bad-dmp-layer');
  expect(reason(set(data(), 123, 0, 0))).toBe('bad-dmp-layer');
});

test('each option has a bit of its own (6.2.6)', () => {
  const options = [
    ['preview', 0x80],
    ['terminated', 0x40],
    ['forceSync', 0x20],
  ] as const;
  for (const [name, bit] of options) {
    const packet = data({ [name]: true });
    expect(packet[112]).toBe(bit);
    expect(decodeSacn(packet)).toMatchObject({
      value: { preview: name === 'preview', terminated: name === 'terminated', forceSync: name === 'forceSync' },
    });
  }
  // The rest of the bits says nothing.
  expect(decodeSacn(set(data(), 112, 0x1f))).toMatchObject({
    value: { preview: false, terminated: false, forceSync: false },
  });
});

test('sequence and synchronisation address stand where the standard has them', () => {
  expect([...sync().subarray(38)]).toEqual([0x70, 11, 0, 0, 0, 1, 200, 0, 7, 0, 0]);
  expect(data().subarray(109, 112)).toEqual(Uint8Array.of(0x0a, 0x0b, 250));
});

test('a list of universes rises, each of it may carry levels, and its last page is not before it', () => {
  expect(reason(discovery([1, 2]))).toBe('accepted');
  expect(reason(discovery([2, 1]))).toBe('bad-discovery-list');
  expect(reason(discovery([2, 2]))).toBe('bad-discovery-list');
  expect(reason(discovery([0, 2]))).toBe('bad-discovery-list');
  expect(reason(discovery([63_999]))).toBe('accepted');
  expect(reason(discovery([64_000]))).toBe('bad-discovery-list');
  expect(reason(discovery([1], 2, 2))).toBe('accepted');
  expect(reason(discovery([1], 3, 2))).toBe('bad-discovery-list');
  const full = discovery(range(1, 512));
  expect(reason(full)).toBe('accepted');
  expect(discovery(range(1, 600))).toEqual(full);
});

/** The same list with so many bytes more, and its layers saying so */
const withMore = (packet: Uint8Array, more: number): Uint8Array => {
  const bytes = new Uint8Array(packet.length + more).fill(0xf0);
  bytes.set(packet);
  for (const at of [16, 38, 112]) {
    bytes[at] = 0x70 | ((bytes.length - at) >> 8);
    bytes[at + 1] = (bytes.length - at) & 0xff;
  }
  return bytes;
};
test('a list of half a universe, or of more than a page holds, is refused', () => {
  expect(reason(withMore(discovery([]), 1))).toBe('bad-discovery-list');
  expect(reason(withMore(discovery(range(1, 512)), 2))).toBe('bad-discovery-list');
});

test('pages are counted from 0, and each knows the last', () => {
  const pages = encodeDiscoveryPages(cid, 'Porthole', range(1, 513)).map((packet) => {
    const page = decodeSacn(packet);
    return page.ok && page.value.kind === 'discovery' ? page.value : undefined;
  });
  expect(pages.map((page) => [page?.page, page?.lastPage, page?.universes.length])).toEqual([
    [0, 1, 512],
    [1, 1, 1],
  ]);
  expect(encodeDiscoveryPages(cid, 'Porthole', [])).toHaveLength(1);
  expect(encodeDiscoveryPages(cid, 'Porthole', range(1, 512))).toHaveLength(1);
});

test('the universe of a packet is read without reading the packet; only of data', () => {
  expect(dataUniverse(data())).toBe(0x1234);
  expect(dataUniverse(data({ slots: new Uint8Array() }))).toBe(0x1234);
  expect(dataUniverse(data().subarray(0, 125))).toBeUndefined();
  expect(dataUniverse(discovery(range(1, 100)))).toBeUndefined();
});

test('a component id is written in five groups, and read with or without them', () => {
  const text = '01020304-0506-0708-090a-0b0c0d0e0f10';
  expect(formatCid(cid)).toBe(text);
  expect(parseCid(text)).toEqual(cid);
  expect(parseCid(text.replaceAll('-', '').toUpperCase())).toEqual(cid);
  expect(formatCid(Uint8Array.of(0xff))).toBe('ff000000-0000-0000-0000-000000000000');
  expect(parseCid('ab')).toEqual(Uint8Array.of(0xab, ...new Array<number>(15).fill(0)));
});
