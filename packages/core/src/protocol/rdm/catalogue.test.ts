/** Settings of responders: read, written and said with their range and unit, there and back, whatever a maker describes. */
import fc from 'fast-check';
import {
  checkValue,
  countedIn,
  isSetting,
  parameterSheet,
  Rdm,
  readValues,
  sheetOfOwn,
  unknownSheet,
  valueText,
  writeValues,
  type ParameterDescription,
  type ParameterSheet,
} from '.';

const value = <T>(result: { ok: true; value: T } | { ok: false; why: string }): T => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};
const sheets = Array.from({ length: 0x1100 }, (_, pid) => parameterSheet(pid)).filter((one) => one !== undefined);
const valuesOf = ({ parts }: ParameterSheet) =>
  fc.tuple(
    ...parts.map(({ size, least, most, choices }) =>
      size === 0
        ? fc.string({ unit: fc.constantFrom(...'abcXYZ 019-'), maxLength: most }).map((text) => text.trim())
        : choices.length > 0
          ? fc.constantFrom(...choices.map((one) => one.value))
          : fc.integer({ min: least, max: most }),
    ),
  );

test('every setting of the standards is read as it was written', () => {
  expect(sheets.length).toBeGreaterThan(35);
  const settable = sheets.filter(({ set, parts }) => set && parts.every(({ told }) => !told));
  for (const sheet of settable)
    fc.assert(
      fc.property(valuesOf(sheet), (values) =>
        expect(value(readValues(sheet, value(writeValues(sheet, values))))).toEqual(values),
      ),
      { numRuns: 25 },
    );
});

test('the modes without DMX are seven bytes: a scene, two times in tenths of a second, a level (E1.37-1, 3.10)', () => {
  const fail = parameterSheet(Rdm.DMX_FAIL_MODE)!;
  expect([...value(writeValues(fail, [1, 25, 0xffff, 128]))]).toEqual([0, 1, 0, 25, 255, 255, 128]);
  expect([1, 25, 0xffff, 128].map((one, i) => valueText(fail.parts[i]!, one))).toEqual([
    '1',
    '2.5 s',
    'for ever',
    '128',
  ]);
  expect(countedIn(fail.parts[1]!)).toBe('× 0.1 s');
  expect(checkValue(fail, 3, 256)).toMatchObject({ ok: false, why: 'When DMX fails, level, runs from 0 to 255.' });
});

test('what is only told is not sent: the slots of a block, the count of the curves', () => {
  const block = parameterSheet(Rdm.DMX_BLOCK_ADDRESS)!;
  expect([...value(writeValues(block, [96, 301]))]).toEqual([1, 45]);
  expect(value(readValues(block, Uint8Array.of(0, 96, 1, 45)))).toEqual([96, 301]);
  expect(checkValue(block, 0, 4)).toMatchObject({ ok: false });
  expect([...value(writeValues(parameterSheet(Rdm.CURVE)!, [3, 5]))]).toEqual([3]);
  expect([...value(writeValues(parameterSheet(Rdm.FACTORY_DEFAULTS)!, [1]))]).toEqual([]);
  expect(checkValue(parameterSheet(Rdm.FACTORY_DEFAULTS)!, 0, 0)).toMatchObject({ ok: false });
  expect(checkValue(parameterSheet(Rdm.LOCK_STATE)!, 0, 1)).toMatchObject({ ok: false, why: 'Lock cannot be set.' });
});

test('where one value of several is set, the others go back as they came, whatever they are', () => {
  const clock = parameterSheet(Rdm.REAL_TIME_CLOCK)!;
  expect(writeValues(clock, [1999, 1, 1, 0, 0, 0])).toMatchObject({ ok: false });
  expect([...value(writeValues(clock, [1999, 1, 1, 0, 30, 0], 4))]).toEqual([7, 207, 1, 1, 0, 30, 0]);
  expect(writeValues(clock, [1999, 1, 1, 0, 61, 0], 4)).toMatchObject({ why: 'Clock, minute, runs from 0 to 59.' });
});

test('settings are said with their range and unit', () => {
  const hours = parameterSheet(Rdm.DEVICE_HOURS)!;
  expect(valueText(hours.parts[0]!, value(readValues(hours, Uint8Array.of(0, 1, 17, 112)))[0]!)).toBe('70000 h');
  const pan = parameterSheet(Rdm.PAN_INVERT)!;
  expect(valueText(pan.parts[0]!, 1)).toBe('on');
  expect(checkValue(pan, 0, 2)).toMatchObject({ ok: false, why: 'Pan reversed runs from 0 to 1.' });
  expect(checkValue(pan, 0, 'on')).toMatchObject({ ok: false });
  expect(readValues(pan, Uint8Array.of(1, 2))).toMatchObject({ ok: false, why: 'It answers 2 bytes where 1 are due.' });
  // What lies between its choices is none.
  expect(checkValue(parameterSheet(Rdm.POWER_STATE)!, 0, 7)).toMatchObject({ why: 'Power is one of 0, 1, 2, 255.' });
  expect(checkValue(parameterSheet(Rdm.DEVICE_LABEL)!, 0, 'x'.repeat(33))).toMatchObject({ ok: false });
});

const own: ParameterDescription = {
  ...{ pid: 0x8010, size: 1, type: 3, commands: 3, unit: 0, prefix: 0, least: 0, most: 3, first: 1, name: 'Fan' },
};

test('a maker’s own has the range, sign, unit and size that its description gives', () => {
  expect(sheetOfOwn(own)).toMatchObject({ name: 'Fan', get: true, set: true, parts: [{ size: 1, least: 0, most: 3 }] });
  // -40 to 40 tenths of a degree, told as 32 bits
  const tilt = sheetOfOwn({ ...own, size: 2, type: 6, unit: 0x16, prefix: 1, least: 0xffff_ffd8, most: 40 })!;
  expect(tilt.parts).toMatchObject([{ size: 2, least: -40, most: 40, unit: '°', power: -1 }]);
  expect([...value(writeValues(tilt, [-25]))]).toEqual([0xff, 0xe7]);
  expect(value(readValues(tilt, Uint8Array.of(0xff, 0xe7)))).toEqual([-25]);
  expect(valueText(tilt.parts[0]!, -25)).toBe('-2.5 °');
  // A range of nothing says none.
  expect(sheetOfOwn({ ...own, most: 0 })!.parts).toMatchObject([{ least: 0, most: 255 }]);
  expect(sheetOfOwn({ ...own, size: 6, type: 5, most: 500 })!.parts.map(({ name }) => name)).toEqual(['1', '2', '3']);
  expect(sheetOfOwn({ ...own, size: 20, type: 2 })!.parts).toMatchObject([{ size: 0, most: 20 }]);
  expect(sheetOfOwn({ ...own, commands: 1 })).toMatchObject({ get: true, set: false });
  expect(sheetOfOwn({ ...own, name: '' })!.name).toBe('Parameter 0x8010');
  expect(sheetOfOwn({ ...own, size: 12, type: 0 })).toBeUndefined();
});

test('any description and any bytes are read or refused, and what is read can be written where it may be', () => {
  const descriptions = fc.record({
    ...{ pid: fc.integer({ min: 0x8000, max: 0xffdf }), size: fc.nat(40), type: fc.nat(255), commands: fc.nat(3) },
    ...{ unit: fc.nat(255), prefix: fc.nat(255), name: fc.string({ maxLength: 32 }) },
    ...{ least: fc.nat(0xffff_ffff), most: fc.nat(0xffff_ffff), first: fc.nat(0xffff_ffff) },
  });
  fc.assert(
    fc.property(descriptions, fc.uint8Array({ maxLength: 40 }), (described, data) => {
      const sheet = sheetOfOwn(described);
      if (!sheet) return;
      const read = readValues(sheet, data);
      if (!read.ok) return expect(read.why).toMatch(/\.$/);
      const written = writeValues(sheet, read.value);
      if (written.ok && sheet.parts[0]!.size > 0) expect(written.value).toEqual(data);
    }),
  );
});

test('what is listed and not known is named by its number; what names others is no setting', () => {
  expect(unknownSheet(0x8123)).toMatchObject({ name: 'Parameter 0x8123', get: false, set: false });
  expect(unknownSheet(0x8123, 'Fog').name).toBe('Fog');
  expect([Rdm.CURVE_DESCRIPTION, Rdm.SENSOR_VALUE, Rdm.DMX_START_ADDRESS].map(isSetting)).toEqual([
    false,
    false,
    false,
  ]);
  expect([Rdm.CURVE, Rdm.DMX_FAIL_MODE, 0x8123].map(isSetting)).toEqual([true, true, true]);
});
