import fc from 'fast-check';
import { decodeFrame, encodeContendersFrame, encodeLevelsFrame, encodeUniverseFrame } from '.';

const key = fc.nat(0x1ffff);
const byte = fc.nat(255);
const slots = fc.uint8Array({ minLength: 512, maxLength: 512 });

test('frames of levels and owners come back as they went', () => {
  fc.assert(
    fc.property(key, fc.nat(0xffffffff), slots, slots, (universe, version, values, owners) => {
      expect(decodeFrame(encodeUniverseFrame(universe, version, values, owners))).toEqual({
        kind: 'universe',
        key: universe,
        version,
        values,
        owners,
      });
    }),
  );
});

test('frames of contenders come back as they went', () => {
  const contender = fc.record({
    mark: byte,
    value: byte,
    priority: fc.integer({ min: -1, max: 200 }),
    age: fc.option(fc.nat(1e9)),
  });
  fc.assert(
    fc.property(key, fc.nat(511), fc.array(contender, { maxLength: 8 }), (universe, slot, contenders) => {
      expect(decodeFrame(encodeContendersFrame(universe, slot, contenders))).toEqual({
        kind: 'contenders',
        key: universe,
        slot,
        contenders,
      });
    }),
  );
});

test('frames of new levels come back as they went', () => {
  fc.assert(
    fc.property(key, fc.array(fc.tuple(fc.nat(511), byte), { maxLength: 512 }), (universe, levels) => {
      expect(decodeFrame(encodeLevelsFrame(universe, levels))).toEqual({ kind: 'levels', key: universe, levels });
    }),
  );
});

test('any bytes are a frame or nothing; slots beyond 512 are nothing', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 64 }), (bytes) => {
      const frame = decodeFrame(bytes);
      if (frame?.kind === 'levels') expect(frame.levels.every(([slot]) => slot < 512)).toBe(true);
    }),
  );
  expect(decodeFrame(encodeLevelsFrame(1, [[512, 0]]))).toBeUndefined();
});
