import fc from 'fast-check';
import { PacketRing, addressBits, addressText } from './ring';

const packets = fc.array(fc.uint8Array({ minLength: 0, maxLength: 90 }), { maxLength: 120 });

describe('the ring', () => {
  test('what goes in comes out, in order, however writing and reading take turns', () => {
    fc.assert(
      fc.property(packets, fc.array(fc.nat(5), { minLength: 1 }), (sent, turns) => {
        const memory = PacketRing.memory(512);
        const writer = new PacketRing(memory);
        const reader = new PacketRing(memory);
        const expected: unknown[] = [];
        const got: unknown[] = [];
        const read = (most: number) =>
          reader.drain(most, ({ bytes, protocol, address, port, at }) =>
            got.push([[...bytes], protocol, address, port, at]),
          );
        sent.forEach((bytes, i) => {
          const lostBefore = writer.lost;
          const protocol = i % 2 === 0 ? 'sacn' : 'artnet';
          writer.write(bytes, protocol, 0, 0xffffffff - i, i, i / 2);
          if (writer.lost === lostBefore) expected.push([[...bytes], protocol, 0xffffffff - i, i, i / 2]);
          read(turns[i % turns.length]!);
        });
        read(Infinity);
        expect(got).toEqual(expected);
        expect(got.length + writer.lost).toBe(sent.length);
      }),
    );
  });

  test('nothing is lost while the reader keeps up', () => {
    const ring = new PacketRing(PacketRing.memory(1024));
    let read = 0;
    for (let i = 0; i < 1000; i += 1) {
      ring.write(new Uint8Array(i % 300), 'sacn', 0, 1, 2, 3);
      ring.drain(1, () => (read += 1));
    }
    expect({ read, lost: ring.lost }).toEqual({ read: 1000, lost: 0 });
  });

  test('a reader that keeps up leaves most of the memory untouched', () => {
    const memory = PacketRing.memory(4096);
    const ring = new PacketRing(memory);
    for (let i = 0; i < 1000; i += 1) {
      ring.write(new Uint8Array(40).fill(255), 'sacn', 0, 1, 2, 3);
      expect(ring.drain(2, () => undefined)).toBe(1);
    }
    expect(new Uint8Array(memory).subarray(3000).some(Boolean)).toBe(false);
  });

  test('a full ring loses the new packet, says so, and keeps the old ones', () => {
    const ring = new PacketRing(PacketRing.memory(256));
    for (let i = 0; i < 10; i += 1) ring.write(Uint8Array.of(i), 'sacn', 0, 0, 0, 0);
    const kept: number[] = [];
    ring.drain(Infinity, ({ bytes }) => kept.push(bytes[0]!));
    expect(kept).toEqual([...Array(7).keys()]);
    expect(ring.lost).toBe(3);
  });

  test('the writer is told once that the reader sleeps', () => {
    const ring = new PacketRing(PacketRing.memory(1024));
    const write = () => ring.write(new Uint8Array(4), 'sacn', 0, 0, 0, 0);
    expect(write()).toBe(false);
    expect(ring.sleep()).toBe(false);
    expect(write()).toBe(false);
    expect(ring.drain(10, () => undefined)).toBe(2);
    expect(ring.sleep()).toBe(true);
    expect([write(), write()]).toEqual([true, false]);
  });
});

test('addresses go to bits and back', () => {
  fc.assert(fc.property(fc.ipV4(), (address) => expect(addressText(addressBits(address))).toBe(address)));
  expect(addressBits('127.0.0.1')).toBe(0x7f000001);
});

test('an IPv6 address goes along as text, and its packet stays whole', () => {
  const ring = new PacketRing(PacketRing.memory(1024));
  const packets = Array.from({ length: 40 }, (_, i) => Uint8Array.of(i, i + 1, i + 2));
  for (const [i, packet] of packets.entries()) {
    const address = i % 2 === 0 ? `fe80::${i.toString(16)}%eth0` : addressBits('10.0.0.9');
    ring.write(packet, 'sacn', 2, address, 5568, i);
    ring.drain(1, (got) => {
      expect([...got.bytes]).toEqual([...packet]);
      expect([got.address, got.port, got.via]).toEqual([address, 5568, 2]);
    });
  }
  expect(ring.lost).toBe(0);
});
