/** What ANSI E1.20-2010, 6.2, fixes of a packet: its start codes, its two lengths, its checksum, its command classes. */
import { Rdm, decodeRdm, encodeRdm, type RdmPacket } from '.';

const packet = (over: Partial<RdmPacket> = {}): RdmPacket => ({
  ...{ destination: '7ff1:00000012', source: '7ff0:00000001', transaction: 9, portOrType: 1, waiting: 3 },
  ...{ subDevice: 0x0102, commandClass: Rdm.GET_COMMAND, pid: 0x0304, data: Uint8Array.of(5, 6, 7) },
  ...over,
});
/** The checksum that fits what stands before it; where is told, since the length may lie. */
const summed = (bytes: Uint8Array, at = bytes[2]!): Uint8Array => {
  const sum = bytes.subarray(0, at).reduce((all, byte) => (all + byte) & 0xffff, 0);
  bytes.set([sum >> 8, sum & 0xff], at);
  return bytes;
};
/** The bytes with others from `at` on, and a checksum that fits them */
const set = (at: number, ...values: number[]): Uint8Array => {
  const bytes = encodeRdm(packet());
  bytes.set(values, at);
  return summed(bytes, 27);
};
const reason = (bytes: Uint8Array): string => {
  const read = decodeRdm(bytes);
  return read.ok ? 'accepted' : read.reason;
};

test('every field stands where the standard has it', () => {
  expect([...encodeRdm(packet()).subarray(15, 27)]).toEqual([9, 1, 3, 1, 2, 0x20, 3, 4, 3, 5, 6, 7]);
  expect(decodeRdm(encodeRdm(packet()))).toEqual({ ok: true, value: packet() });
});

test.each<readonly [string, string, () => Uint8Array]>([
  ['accepted', 'as it was written', () => set(15, 9)],
  ['not-rdm', 'another start code', () => set(0, 0)],
  ['not-rdm', 'another sub start code', () => set(1, 2)],
  ['bad-length', 'a length before the end of the header', () => set(2, 23)],
  ['bad-length', 'a length beyond the packet', () => set(2, 28)],
  ['bad-length', 'a data length of one more than there is', () => set(23, 4)],
  ['bad-length', 'a data length of one less', () => set(23, 2)],
  [
    'bad-checksum',
    'a checksum that is one off',
    () => encodeRdm(packet()).map((byte, i, all) => (i === all.length - 1 ? byte + 1 : byte)),
  ],
  ['bad-class', 'a class between those that there are', () => set(20, 0x22)],
  ['bad-class', 'no class', () => set(20, 0)],
  ['too-short', 'a byte less than the shortest', () => encodeRdm(packet({ data: new Uint8Array() })).subarray(0, 25)],
  ['accepted', 'the shortest', () => encodeRdm(packet({ data: new Uint8Array() }))],
])('%s: %s', (why, _, bytes) => expect(reason(bytes())).toBe(why));

test('each command class is read, and what follows a packet is left', () => {
  for (const commandClass of [0x10, 0x11, 0x20, 0x21, 0x30, 0x31])
    expect(decodeRdm(encodeRdm(packet({ commandClass })))).toMatchObject({ ok: true, value: { commandClass } });
  expect(decodeRdm(Uint8Array.of(...encodeRdm(packet()), 1, 2, 3))).toEqual({ ok: true, value: packet() });
});

test('231 bytes of data are the most', () => {
  const most = new Uint8Array(Rdm.MOST_DATA).fill(0xff);
  expect(Rdm.MOST_DATA).toBe(231);
  expect(decodeRdm(encodeRdm(packet({ data: most })))).toMatchObject({ ok: true, value: { data: most } });
  expect(() => encodeRdm(packet({ data: new Uint8Array(232) }))).toThrow(
    'An RDM packet holds at most 231 bytes of data.',
  );
});
