import fc from 'fast-check';
import {
  formatAddress,
  formatPortAddress,
  formatRange,
  formatWire,
  formatWireFully,
  formatWireToken,
  fromAbsolute,
  fromWireKey,
  joinPortAddress,
  multicastGroup,
  multicastGroup6,
  readAddress,
  readPortAddress,
  readRange,
  readSacnUniverse,
  readShowUniverse,
  readWireText,
  readWireToken,
  splitPortAddress,
  toAbsolute,
  wireKey,
  type WireUniverse,
} from '.';

const whyOf = (result: { ok: boolean; why?: string }) => (result.ok ? 'accepted' : result.why);

const wires = fc.oneof(
  fc.record({ protocol: fc.constant('sacn' as const), number: fc.integer({ min: 1, max: 63999 }) }),
  fc.record({ protocol: fc.constant('artnet' as const), number: fc.integer({ min: 0, max: 32767 }) }),
);

describe('universe/channel', () => {
  test('every address is read as it is written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 63999 }), fc.integer({ min: 1, max: 512 }), (universe, channel) => {
        expect(readAddress(formatAddress({ universe, channel }))).toEqual({ ok: true, value: { universe, channel } });
      }),
    );
  });

  test('any text at all is read or refused with a reason', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        for (const result of [readAddress(text), readRange(text), readPortAddress(text), readShowUniverse(text)])
          expect(result.ok || result.why.length > 0).toBe(true);
      }),
    );
  });

  test.each([
    ['3', /write universe\/channel/],
    ['3/0', /run from 1 to 512/],
    ['3/513', /run from 1 to 512/],
    ['0/1', /run from 1 to 63999/],
    ['3/x', /whole number/],
    ['3/1.5', /whole number/],
  ])('%s is refused by name', (text, why) => expect(whyOf(readAddress(text))).toMatch(why));

  test('runs take their ends in either order, and single slots', () => {
    expect(readRange('3/24-1')).toEqual({ ok: true, value: { universe: 3, from: 1, to: 24 } });
    expect(readRange(' 3 / 7 ')).toEqual({ ok: true, value: { universe: 3, from: 7, to: 7 } });
    expect(formatRange({ universe: 3, from: 1, to: 24 })).toBe('3/1–24');
    expect(readRange('3/1–24')).toEqual(readRange('3/1-24'));
    expect(readRange('3/1-2-3').ok).toBe(false);
    expect(readRange('3/1-600').ok).toBe(false);
  });

  test('a universe may be written with a u', () => {
    expect(readShowUniverse('u12')).toEqual({ ok: true, value: 12 });
    expect(readSacnUniverse('64000').ok).toBe(false);
  });
});

describe('absolute channels', () => {
  test('there and back in either base', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 63999 }),
        fc.integer({ min: 1, max: 512 }),
        fc.constantFrom(0 as const, 1 as const),
        (universe, channel, base) => {
          expect(fromAbsolute(toAbsolute({ universe, channel }, base), base)).toEqual({
            ok: true,
            value: { universe, channel },
          });
        },
      ),
    );
  });

  test('universe 2 begins at 513', () => {
    expect(toAbsolute({ universe: 2, channel: 1 })).toBe(513);
    expect(toAbsolute({ universe: 2, channel: 1 }, 0)).toBe(512);
    expect(fromAbsolute(0).ok).toBe(false);
    expect(fromAbsolute(63999 * 512 + 1).ok).toBe(false);
    expect(fromAbsolute(1.5).ok).toBe(false);
  });
});

describe('Port-Address', () => {
  test('every one of the 32,768 splits, joins, and reads back', () => {
    const wrong = Array.from({ length: 0x8000 }, (_, portAddress) => portAddress).filter((portAddress) => {
      const read = readPortAddress(formatPortAddress(portAddress));
      return joinPortAddress(splitPortAddress(portAddress)) !== portAddress || !read.ok || read.value !== portAddress;
    });
    expect(wrong).toEqual([]);
  });

  test('the base counts for a single number only', () => {
    expect(readPortAddress('1', 1)).toEqual({ ok: true, value: 0 });
    expect(readPortAddress('0', 1).ok).toBe(false);
    expect(readPortAddress('0.0.1', 1)).toEqual({ ok: true, value: 1 });
  });

  test.each(['128.0.0', '0.16.0', '0.0.16', '32768', 'a.b.c', ''])('%s is refused', (text) =>
    expect(readPortAddress(text).ok).toBe(false),
  );
});

describe('universes on the wire', () => {
  test('keys and tokens are unique and lead back', () => {
    fc.assert(
      fc.property(wires, wires, (one: WireUniverse, other: WireUniverse) => {
        expect(fromWireKey(wireKey(one))).toEqual(one);
        expect(readWireToken(formatWireToken(one))).toEqual({ ok: true, value: one });
        expect(wireKey(one) === wireKey(other)).toBe(formatWireToken(one) === formatWireToken(other));
      }),
    );
    expect(readWireToken('u12').ok).toBe(false);
  });

  test('both countings of an Art-Net universe are said', () => {
    expect(formatWire({ protocol: 'artnet', number: 18 })).toBe('Art-Net 0.1.2');
    expect(formatWireFully({ protocol: 'artnet', number: 18 })).toMatch(/18 counted from 0.*shows 19/);
  });

  test('multicast groups as in E1.31, 9.3.1', () => {
    expect(multicastGroup(1)).toBe('239.255.0.1');
    expect(multicastGroup(63999)).toBe('239.255.249.255');
    expect([multicastGroup6(1), multicastGroup6(63999)]).toEqual(['ff18::8300:1', 'ff18::8300:f9ff']);
  });
});

test.each([
  ['sACN 12', { protocol: 'sacn', number: 12 }],
  ['sacn-12', { protocol: 'sacn', number: 12 }],
  ['Art-Net 0.1.2', { protocol: 'artnet', number: 18 }],
  ['artnet 18', { protocol: 'artnet', number: 18 }],
  ['3', { protocol: 'artnet', number: 7 }],
  ['u 3', { protocol: 'artnet', number: 7 }],
])('“%s” names a universe', (text, value) =>
  expect(readWireText(text, (universe) => (universe === 3 ? { protocol: 'artnet', number: 7 } : undefined))).toEqual({
    ok: true,
    value,
  }),
);

test.each([
  ['4', /Universe 4 is not in the show/],
  ['dmx 4', /names no universe/],
  ['sacn 0', /run from 1/],
])('“%s” does not', (text, why) => expect(whyOf(readWireText(text, () => undefined))).toMatch(why));
