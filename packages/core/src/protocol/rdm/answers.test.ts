/** What a responder answers to each parameter, and why it refuses what it refuses (ANSI E1.20, E1.37-1). */
import { NO_RESPONDER_FAULTS, Rdm, Responder, readResponse, sheetOfOwn, type RdmPacket, type ResponderSheet } from '.';

const UID = '7ff1:00000012';
const SHEET: ResponderSheet = {
  ...{ uid: UID, model: 7, category: 0x0101, software: 1, softwareName: '1.4', maker: 'Orrin', modelName: 'Petal' },
  personalities: [
    {
      name: 'Short',
      slots: [
        { slot: 0, type: 0, label: 0x0001, name: 'Level', default: 0 },
        { slot: 1, type: 0, label: 0x0101, name: 'Turn', default: 128 },
      ],
    },
  ],
  sensors: [
    {
      ...{ sensor: 0, type: 0, unit: 1, prefix: 0 },
      ...{ range: [0, 100], normal: [5, 70], keeps: 0, name: 'Head' },
    },
  ],
  own: [
    { pid: 0x8010, size: 1, type: 3, commands: 3, unit: 0, prefix: 0, least: 1, most: 3, first: 1, name: 'Fan' },
    { pid: 0x8011, size: 1, type: 3, commands: 3, unit: 0, prefix: 0, least: 0, most: 9, first: 1, name: 'Hum' },
  ],
};
const made = () =>
  new Responder(
    SHEET,
    { address: 5, personality: 1, label: 'Bow', values: { [Rdm.DEVICE_HOURS]: 70_000, 0x8010: 2, 0x8011: 7 } },
    (sensor) => 40 + sensor,
  );
const packet = (pid: number, data: readonly number[], set: boolean): RdmPacket => ({
  ...{ destination: UID, source: '7ff0:00000001', transaction: 9, portOrType: 1, waiting: 0, subDevice: 0 },
  ...{ commandClass: set ? Rdm.SET_COMMAND : Rdm.GET_COMMAND, pid, data: Uint8Array.from(data) },
});
function answerOf(lamp: Responder, pid: number, data: readonly number[], set = false): string {
  const answer = lamp.handle(packet(pid, data, set), 0)!;
  const read = readResponse(answer);
  if (!read.ok) throw new Error(read.why);
  if (read.value.kind === 'nack') return `refused ${read.value.reason}`;
  return read.value.kind === 'ack' ? Buffer.from(read.value.data).toString('hex') : read.value.kind;
}
const hex = (text: string, ...before: number[]) => Buffer.from([...before, ...Buffer.from(text)]).toString('hex');

test.each<[string, number, number[], string]>([
  ['its model', Rdm.DEVICE_MODEL_DESCRIPTION, [], hex('Petal')],
  ['its maker', Rdm.MANUFACTURER_LABEL, [], hex('Orrin')],
  ['its software', Rdm.SOFTWARE_VERSION_LABEL, [], hex('1.4')],
  ['its address', Rdm.DMX_START_ADDRESS, [], '0005'],
  ['its mode', Rdm.DMX_PERSONALITY, [], '0101'],
  ['a slot’s name', Rdm.SLOT_DESCRIPTION, [0, 1], hex('Turn', 0, 1)],
  ['its sensor’s value, lowest, highest and recorded', Rdm.SENSOR_VALUE, [0], '000028002800280028'],
  ['no message', Rdm.STATUS_MESSAGES, [1], ''],
  ['that it does not identify', Rdm.IDENTIFY_DEVICE, [], '00'],
  ['that it is as it left the factory', Rdm.FACTORY_DEFAULTS, [], '01'],
  ['its level without DMX', Rdm.DMX_STARTUP_MODE, [], '00000000ffff00'],
  ['its curve of three', Rdm.CURVE, [], '0103'],
  ['a curve’s name', Rdm.CURVE_DESCRIPTION, [2], hex('Square', 2)],
  ['its hours as four bytes', Rdm.DEVICE_HOURS, [], '00011170'],
  ['a switch as one byte', Rdm.PAN_INVERT, [], '00'],
  ['its maker’s first own value', 0x8010, [], '02'],
  ['its maker’s second own value', 0x8011, [], '07'],
])('it is asked for %s', (_, pid, data, due) => expect(answerOf(made(), pid, data)).toBe(due));

test('its sensor and its maker’s own parameter describe themselves', () => {
  expect(answerOf(made(), Rdm.SENSOR_DEFINITION, [0])).toMatch(new RegExp(`^00.*${hex('Head')}$`));
  expect(answerOf(made(), Rdm.PARAMETER_DESCRIPTION, [0x80, 0x11])).toMatch(new RegExp(`^8011.*${hex('Hum')}$`));
  expect(answerOf(made(), Rdm.SUPPORTED_PARAMETERS, [])).toMatch(/02000201.*80108011$/);
  const cold = new Responder({ ...SHEET, sensors: [] }, made().state);
  expect(answerOf(cold, Rdm.SUPPORTED_PARAMETERS, [])).not.toMatch(/02000201/);
});

const { NR_FORMAT_ERROR: FORM, NR_DATA_OUT_OF_RANGE: RANGE, NR_UNKNOWN_PID: UNKNOWN } = Rdm;
test.each<[string, number, number[], number]>([
  ['a slot that it does not have', Rdm.SLOT_DESCRIPTION, [0, 2], RANGE],
  ['a slot by one byte', Rdm.SLOT_DESCRIPTION, [1], FORM],
  ['a sensor that it does not have', Rdm.SENSOR_VALUE, [1], RANGE],
  ['a sensor by two bytes', Rdm.SENSOR_VALUE, [0, 0], FORM],
  ['a curve that it does not have', Rdm.CURVE_DESCRIPTION, [4], RANGE],
  ['an own parameter that it does not have', Rdm.PARAMETER_DESCRIPTION, [0x80, 0x12], RANGE],
  ['what no sheet describes', 0x7abc, [], UNKNOWN],
  ['what a sheet describes and it does not have', Rdm.DISPLAY_INVERT, [], UNKNOWN],
])('being asked for %s it refuses', (_, pid, data, reason) =>
  expect(answerOf(made(), pid, data)).toBe(`refused ${reason}`),
);

test.each<[string, number, number[], string]>([
  ['the first address', Rdm.DMX_START_ADDRESS, [0, 1], '0001'],
  ['the last address', Rdm.DMX_START_ADDRESS, [2, 0], '0200'],
  ['identify', Rdm.IDENTIFY_DEVICE, [1], '01'],
  ['the last curve', Rdm.CURVE, [3], '0303'],
  ['the least of an own value', 0x8010, [1], '01'],
  ['the most of an own value', 0x8010, [3], '03'],
  ['hours', Rdm.DEVICE_HOURS, [1, 2, 3, 4], '01020304'],
  ['a switch', Rdm.TILT_INVERT, [1], '01'],
  ['a level without DMX', Rdm.DMX_FAIL_MODE, [0, 1, 0, 25, 255, 255, 128], '00010019ffff80'],
  ['a label of 32 letters', Rdm.DEVICE_LABEL, [...Buffer.from('x'.repeat(32))], hex('x'.repeat(32))],
])('it is set to %s, says so, and is no longer as it left the factory', (what, pid, data, then) => {
  const lamp = made();
  expect(answerOf(lamp, pid, data, true)).toBe('');
  expect(answerOf(lamp, pid, [])).toBe(then);
  expect(answerOf(lamp, Rdm.FACTORY_DEFAULTS, [])).toBe(what === 'identify' ? '01' : '00');
});

test.each<[string, number, number[], number]>([
  ['address 0', Rdm.DMX_START_ADDRESS, [0, 0], RANGE],
  ['a mode by two bytes', Rdm.DMX_PERSONALITY, [1, 1], FORM],
  ['identify 2', Rdm.IDENTIFY_DEVICE, [2], RANGE],
  ['identify by two bytes', Rdm.IDENTIFY_DEVICE, [1, 1], FORM],
  ['a label of 33 letters', Rdm.DEVICE_LABEL, Array.from({ length: 33 }, () => 0x41), FORM],
  ['curve 4', Rdm.CURVE, [4], RANGE],
  ['curve 0', Rdm.CURVE, [0], RANGE],
  ['a curve by two bytes', Rdm.CURVE, [1, 1], FORM],
  ['a level without DMX of six bytes', Rdm.DMX_FAIL_MODE, [0, 1, 0, 25, 255, 255], FORM],
  ['an own value below its least', 0x8010, [0], RANGE],
  ['an own value by two bytes', 0x8010, [1, 1], FORM],
  ['hours by two bytes', Rdm.DEVICE_HOURS, [1, 1], FORM],
  ['a switch at 2', Rdm.PAN_INVERT, [2], RANGE],
  ['a setting that it does not have', Rdm.DISPLAY_INVERT, [1], UNKNOWN],
])('setting %s is refused, and nothing is changed', (_, pid, data, reason) => {
  const lamp = made();
  const before = structuredClone(lamp.state);
  expect(answerOf(lamp, pid, data, true)).toBe(`refused ${reason}`);
  expect([lamp.state, lamp.identifying]).toEqual([before, false]);
});

test('a reset ends identifying, and answers that wait are gone', () => {
  const lamp = made();
  lamp.faults = { ...NO_RESPONDER_FAULTS, slow: 100 };
  lamp.handle(packet(Rdm.IDENTIFY_DEVICE, [1], true), 0);
  lamp.faults = NO_RESPONDER_FAULTS;
  expect(lamp.handle(packet(Rdm.DEVICE_LABEL, [], false), 0)!.waiting).toBe(1);
  lamp.handle(packet(Rdm.RESET_DEVICE, [255], true), 0);
  expect(lamp.identifying).toBe(false);
  expect(lamp.handle(packet(Rdm.DEVICE_LABEL, [], false), 0)!.waiting).toBe(0);
});

describe('a maker’s own parameter, by its description', () => {
  const described = (more: object) =>
    sheetOfOwn({
      ...{ pid: 0x8020, size: 1, type: 3, commands: 3, unit: 0, prefix: 0, least: 0, most: 0, first: 0, name: 'Own' },
      ...more,
    });
  test.each([
    ['no range: all that its size holds', { size: 2, type: 5 }, [[0, 65_535]]],
    ['a signed one without a range', { size: 1, type: 4 }, [[-128, 127]]],
    ['a range', { least: 3, most: 255 }, [[3, 255]]],
    ['a range below what it can hold', { type: 4, least: -200, most: 5 }, [[-128, 127]]],
    ['a range above what it can hold', { least: 0, most: 256 }, [[0, 255]]],
    ['a kind that nobody knows, as long as a number', { size: 4, type: 0x77 }, [[0, 4_294_967_295]]],
    ['several of one kind', { size: 4, type: 5 }, [[0, 65_535], [0, 65_535]]], // prettier-ignore
    ['as many as are shown', { size: 16 }, Array.from({ length: 16 }, () => [0, 255])],
  ])('%s', (_, more, due) => expect(described(more)?.parts.map(({ least, most }) => [least, most])).toEqual(due));

  test.each([
    ['half a number', { size: 3, type: 5 }],
    ['more than are shown', { size: 17 }],
    ['of no length', { size: 0, type: 3 }],
    ['a kind that nobody knows, of an odd length', { size: 3, type: 0x77 }],
  ])('%s is not shown as numbers', (_, more) => expect(described(more)).toBeUndefined());

  test('says what may be done with it, and numbers its values where there are several', () => {
    expect(described({ commands: 2 })).toMatchObject({ get: false, set: true });
    expect(described({ commands: 1 })).toMatchObject({ get: true, set: false });
    expect(described({ size: 2, unit: 0x99, prefix: 0x99 })!.parts).toMatchObject([
      { name: '1', unit: '', power: 0 },
      { name: '2', unit: '', power: 0 },
    ]);
    expect(described({})!.parts).toMatchObject([{ name: '' }]);
  });
});
