/** A responder of each kind of answer; values of settings, counts and status messages there and back. */
import { random } from '../../truth/fault';
import {
  NO_RESPONDER_FAULTS,
  Rdm,
  Responder,
  allOf,
  attributeOfSlot,
  decodeCount,
  decodeDefaults,
  decodeDeviceInfo,
  decodeLabel,
  decodePersonalityDescription,
  decodeSlotInfo,
  decodeStatus,
  decodeSupported,
  encodeCount,
  encodeStatus,
  exchangeMs,
  readResponse,
  slotIdOf,
  statusText,
  type RdmPacket,
  type ResponderSheet,
} from '.';

const UID = '7ff1:00000012';
const slots = (count: number) =>
  Array.from({ length: count }, (_, slot) => ({
    slot,
    type: 0,
    label: 0xffff,
    name: `Slot ${slot + 1}`,
    default: slot % 256,
  }));
const SHEET: ResponderSheet = {
  uid: UID,
  model: 7,
  category: 0x0101,
  software: 1,
  softwareName: '1.0',
  maker: 'Orrin',
  modelName: 'Petal',
  personalities: [
    { name: 'Short', slots: slots(4) },
    { name: 'Long', slots: slots(60) },
  ],
  sensors: [],
  own: [{ pid: 0x8010, size: 1, type: 3, commands: 3, unit: 0, prefix: 0, least: 0, most: 3, first: 1, name: 'Fan' }],
};
const made = () => new Responder(SHEET, { address: 5, personality: 1, label: 'Bow', values: { 0x0400: 70_000 } });

let transaction = 0;
const packet = (pid: number, data: readonly number[] = [], set = false, destination = UID): RdmPacket => ({
  ...{ destination, source: '7ff0:00000001', transaction: (transaction += 1) & 0xff, portOrType: 1, waiting: 0 },
  ...{ subDevice: 0, commandClass: set ? Rdm.SET_COMMAND : Rdm.GET_COMMAND, pid, data: Uint8Array.from(data) },
});
function ask(responder: Responder, pid: number, data: readonly number[] = [], set = false, now = 0) {
  const answer = responder.handle(packet(pid, data, set), now)!;
  const response = readResponse(answer);
  if (!response.ok) throw new Error(response.why);
  return { ...response.value, pid: answer.pid, waiting: answer.waiting };
}
const dataOf = (answer: ReturnType<typeof ask>): Uint8Array => {
  if (answer.kind !== 'ack') throw new Error(`It answered ${answer.kind}.`);
  return answer.data;
};
const value = <T>(result: { ok: true; value: T } | { ok: false; why: string }): T => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};

test('what it is set to is told, and told otherwise when it was set', () => {
  const lamp = made();
  expect(value(decodeDeviceInfo(dataOf(ask(lamp, Rdm.DEVICE_INFO))))).toMatchObject({ startAddress: 5, footprint: 4 });
  expect(ask(lamp, Rdm.DMX_START_ADDRESS, [1, 0x2c], true).kind).toBe('ack');
  expect(ask(lamp, Rdm.DMX_PERSONALITY, [2], true).kind).toBe('ack');
  expect(ask(lamp, Rdm.DEVICE_LABEL, [...Buffer.from('Stern')], true).kind).toBe('ack');
  expect(value(decodeDeviceInfo(dataOf(ask(lamp, Rdm.DEVICE_INFO))))).toMatchObject({
    ...{ startAddress: 300, personality: 2, footprint: 60, personalities: 2 },
  });
  expect(decodeLabel(dataOf(ask(lamp, Rdm.DEVICE_LABEL)))).toBe('Stern');
  expect(value(decodePersonalityDescription(dataOf(ask(lamp, Rdm.DMX_PERSONALITY_DESCRIPTION, [2]))))).toEqual({
    ...{ personality: 2, footprint: 60, name: 'Long' },
  });
  ask(lamp, Rdm.FACTORY_DEFAULTS, [], true);
  expect(value(decodeDeviceInfo(dataOf(ask(lamp, Rdm.DEVICE_INFO)))).startAddress).toBe(5);
});

test.each([
  ['an address past 512', Rdm.DMX_START_ADDRESS, [2, 1], Rdm.NR_DATA_OUT_OF_RANGE],
  ['a mode that it has not', Rdm.DMX_PERSONALITY, [3], Rdm.NR_DATA_OUT_OF_RANGE],
  ['half an address', Rdm.DMX_START_ADDRESS, [1], Rdm.NR_FORMAT_ERROR],
  ['a parameter that nobody has', 0x7abc, [1], Rdm.NR_UNKNOWN_PID],
  ['device information', Rdm.DEVICE_INFO, [1], Rdm.NR_UNSUPPORTED_COMMAND_CLASS],
  ['a fan faster than it goes', 0x8010, [4], Rdm.NR_DATA_OUT_OF_RANGE],
])('setting %s is refused for its reason and changes nothing', (_, pid, data, reason) => {
  const lamp = made();
  const before = structuredClone(lamp.state);
  expect(ask(lamp, pid, data, true)).toMatchObject({ kind: 'nack', reason });
  expect(lamp.state).toEqual(before);
});

test('a sub-device that it has not is refused', () => {
  const answer = made().handle({ ...packet(Rdm.DEVICE_INFO), subDevice: 1 }, 0)!;
  expect(value(readResponse(answer))).toEqual({ kind: 'nack', reason: Rdm.NR_SUB_DEVICE_OUT_OF_RANGE });
});

test('one that is locked refuses to be set, and shows itself all the same', () => {
  const lamp = made();
  lamp.faults = { ...NO_RESPONDER_FAULTS, refuses: true };
  expect(ask(lamp, Rdm.DMX_START_ADDRESS, [0, 9], true)).toMatchObject({ kind: 'nack', reason: Rdm.NR_WRITE_PROTECT });
  expect(lamp.state.address).toBe(5);
  ask(lamp, Rdm.IDENTIFY_DEVICE, [1], true);
  expect(lamp.identifying).toBe(true);
});

test('a slow one says when, keeps its answer, and gives it as a queued message', () => {
  const lamp = made();
  lamp.faults = { ...NO_RESPONDER_FAULTS, slow: 700 };
  expect(ask(lamp, Rdm.DMX_START_ADDRESS, [0, 40], true, 0)).toMatchObject({ kind: 'timer', ms: 700 });
  // Too early there is nothing but that something waits.
  expect(ask(lamp, Rdm.QUEUED_MESSAGE, [4], false, 300)).toMatchObject({ pid: Rdm.STATUS_MESSAGES, waiting: 1 });
  const late = lamp.handle(packet(Rdm.QUEUED_MESSAGE, [4]), 900)!;
  expect(late).toMatchObject({ pid: Rdm.DMX_START_ADDRESS, commandClass: Rdm.SET_COMMAND_RESPONSE, waiting: 0 });
  expect(lamp.state.address).toBe(40);
});

test('a long answer comes in parts that join', () => {
  const lamp = made();
  lamp.state.personality = 2;
  const first = ask(lamp, Rdm.SLOT_INFO);
  expect(first.kind).toBe('overflow');
  const rest = ask(lamp, Rdm.SLOT_INFO);
  if (first.kind !== 'overflow' || rest.kind !== 'ack') throw new Error('not in parts');
  expect(value(decodeSlotInfo(Uint8Array.from([...first.data, ...rest.data])))).toHaveLength(60);
  // From its begin again afterwards
  expect(ask(lamp, Rdm.SLOT_INFO).kind).toBe('overflow');
});

test('it answers for itself alone, and nobody when everybody is meant', () => {
  const lamp = made();
  expect(lamp.handle(packet(Rdm.DEVICE_INFO, [], false, '7ff1:00000013'), 0)).toBeUndefined();
  expect(lamp.handle(packet(Rdm.DMX_START_ADDRESS, [0, 77], true, allOf(0x7ff1)), 0)).toBeUndefined();
  expect(lamp.state.address).toBe(77);
  lamp.handle(packet(Rdm.DMX_START_ADDRESS, [0, 88], true, allOf(0x7ff2)), 0);
  expect(lamp.state.address).toBe(77);
});

test('it lists what it has beyond what all have', () => {
  const listed = value(decodeSupported(dataOf(ask(made(), Rdm.SUPPORTED_PARAMETERS))));
  expect(listed).toEqual(expect.arrayContaining([Rdm.DEVICE_LABEL, Rdm.DEVICE_HOURS, 0x8010]));
  // ANSI E1.20, 10.4.1: never the required ones.
  for (const pid of [Rdm.DEVICE_INFO, Rdm.SUPPORTED_PARAMETERS, Rdm.DMX_START_ADDRESS, Rdm.IDENTIFY_DEVICE])
    expect(listed).not.toContain(pid);
  // And all that it lists it answers, one way or another.
  for (const pid of listed) {
    const answer = ask(
      made(),
      pid,
      pid === Rdm.SLOT_DESCRIPTION
        ? [0, 0]
        : [Rdm.DMX_PERSONALITY_DESCRIPTION, Rdm.CURVE_DESCRIPTION].includes(pid)
          ? [1]
          : [],
    );
    if (answer.kind === 'nack') expect([Rdm.RESET_DEVICE, Rdm.QUEUED_MESSAGE]).toContain(pid);
  }
});

test('slots that nothing sets have their values', () => {
  expect([...decodeDefaults(dataOf(ask(made(), Rdm.DEFAULT_SLOT_VALUE)))]).toEqual([
    [0, 0],
    [1, 1],
    [2, 2],
    [3, 3],
  ]);
});

test('counts and status messages are read as they were written', () => {
  const next = random(3);
  for (let i = 0; i < 200; i += 1) {
    const count = Math.floor(next() * 0xffff_ffff);
    expect(value(decodeCount(encodeCount(count)))).toBe(count);
    const message = {
      ...{ subDevice: Math.floor(next() * 512), severity: 2 + Math.floor(next() * 3), id: Math.floor(next() * 0xffff) },
      values: [Math.floor(next() * 0xffff) - 0x8000, Math.floor(next() * 0xffff) - 0x8000] as const,
    };
    expect(value(decodeStatus(encodeStatus([message, message])))).toEqual([message, message]);
  }
  expect(decodeCount(new Uint8Array(3)).ok).toBe(false);
  expect(decodeStatus(new Uint8Array(10)).ok).toBe(false);
  expect(statusText({ subDevice: 0, severity: 4, id: 0x21, values: [0, 91] })).toBe(
    'error: temperature of sensor 0 is too high: 91 °C',
  );
  expect(statusText({ subDevice: 0, severity: 0x13, id: 0x9abc, values: [1, 2] })).toBe(
    'warning: message 0x9abc (1, 2), over now',
  );
});

test('attributes have their slot numbers both ways', () => {
  for (const attribute of ['Dimmer', 'Pan', 'ColorAdd_R', 'Zoom'])
    expect(attributeOfSlot(slotIdOf(attribute))).toBe(attribute);
  expect(attributeOfSlot(slotIdOf('Prism9'))).toBeUndefined();
});

test('an exchange takes its bytes’ time on the line, and the wait for an answer that does not come', () => {
  // 26 and 45 slots of 44 µs, two breaks, half a millisecond to turn.
  expect(exchangeMs(0, 19)).toBeCloseTo(0.188 * 2 + (26 + 45) * 0.044 + 0.5, 6);
  expect(exchangeMs(0, null)).toBeCloseTo(0.188 + 26 * 0.044 + 2.8, 6);
});
