/** RDM: packets and parameters, byte for byte and there and back; any bytes at all are read or named. */
import { random } from '../../truth/fault';
import {
  BROADCAST,
  Rdm,
  allOf,
  decodeDeviceInfo,
  decodeLabel,
  decodeParameterDescription,
  decodePersonality,
  decodePersonalityDescription,
  decodeRdm,
  decodeSensorDefinition,
  decodeSensorValue,
  decodeSlotInfo,
  decodeStartAddress,
  decodeSupported,
  encodeDeviceInfo,
  encodeLabel,
  encodeParameterDescription,
  encodePersonalityDescription,
  encodeRdm,
  encodeSensorDefinition,
  encodeSensorValue,
  encodeSlotInfo,
  encodeStartAddress,
  encodeSupported,
  formatUid,
  isBroadcast,
  nackText,
  parseUid,
  readResponse,
  sensorText,
  type RdmPacket,
} from '.';

const next = random(7);
const whole = (most: number, least = 0): number => least + Math.floor(next() * (most - least + 1));
const bytesOf = (length: number) => Uint8Array.from({ length }, () => whole(255));
const packet = (over: Partial<RdmPacket> = {}): RdmPacket => ({
  destination: '7ff1:00000012',
  source: '7ff0:00000001',
  transaction: 0,
  portOrType: 1,
  waiting: 0,
  subDevice: 0,
  commandClass: Rdm.GET_COMMAND,
  pid: Rdm.DEVICE_INFO,
  data: new Uint8Array(0),
  ...over,
});
const value = <T>(
  result: { readonly ok: true; readonly value: T } | { readonly ok: false; readonly why: string },
): T => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};

describe('a packet', () => {
  test('byte for byte, with its checksum over every byte', () => {
    // The example of ANSI E1.20-2010, 6.2: a request for status messages.
    const bytes = encodeRdm({
      destination: '1234:56789abc',
      source: 'cba9:87654321',
      transaction: 0,
      portOrType: 1,
      waiting: 0,
      subDevice: 0,
      commandClass: Rdm.GET_COMMAND,
      pid: Rdm.STATUS_MESSAGES,
      data: Uint8Array.of(4),
    });
    expect(Buffer.from(bytes).toString('hex')).toBe('cc0119123456789abccba987654321000100000020003001' + '04066a');
  });

  test('is read as it was written', () => {
    for (let i = 0; i < 500; i += 1) {
      const one = packet({
        destination: formatUid(whole(0xffff), whole(0xffff_ffff)),
        source: formatUid(whole(0xffff), whole(0xffff_ffff)),
        transaction: whole(255),
        portOrType: whole(255),
        waiting: whole(255),
        subDevice: whole(0xffff),
        commandClass: [0x10, 0x11, 0x20, 0x21, 0x30, 0x31][whole(5)]!,
        pid: whole(0xffff),
        data: bytesOf(whole(Rdm.MOST_DATA)),
      });
      expect(value(decodeRdm(encodeRdm(one)))).toEqual(one);
    }
    expect(() => encodeRdm(packet({ data: new Uint8Array(232) }))).toThrow(/231/);
  });

  test('one flipped bit anywhere is found', () => {
    const good = encodeRdm(packet({ data: bytesOf(20) }));
    for (let at = 0; at < good.length; at += 1) {
      const bad = Uint8Array.from(good);
      bad[at]! ^= 1 << whole(7);
      expect(decodeRdm(bad).ok).toBe(false);
    }
  });

  test('any bytes at all are a packet or a named rejection', () => {
    for (let i = 0; i < 3000; i += 1) {
      const bytes = i % 2 ? bytesOf(whole(80)) : Uint8Array.from([0xcc, 1, ...bytesOf(whole(80))]);
      const decoded = decodeRdm(bytes);
      if (!decoded.ok) expect(decoded.why).toMatch(/\.$/);
    }
    expect(decodeRdm(new Uint8Array(10))).toMatchObject({ reason: 'too-short' });
    expect(decodeRdm(new Uint8Array(30))).toMatchObject({ reason: 'not-rdm' });
  });
});

test('an answer is done, later, no, or a part of more', () => {
  const answer = (portOrType: number, data: Uint8Array, commandClass = Rdm.GET_COMMAND_RESPONSE) =>
    readResponse(packet({ portOrType, data, commandClass }));
  const data = Uint8Array.of(0, 25);
  expect(value(answer(Rdm.RESPONSE_TYPE_ACK, data))).toEqual({ kind: 'ack', data });
  expect(value(answer(Rdm.RESPONSE_TYPE_ACK_OVERFLOW, data))).toEqual({ kind: 'overflow', data });
  expect(value(answer(Rdm.RESPONSE_TYPE_ACK_TIMER, data))).toEqual({ kind: 'timer', ms: 2500 });
  expect(value(answer(Rdm.RESPONSE_TYPE_NACK_REASON, Uint8Array.of(0, 4)))).toEqual({ kind: 'nack', reason: 4 });
  expect(nackText(4)).toBe('it is locked against writing');
  expect(nackText(99)).toBe('it refuses for reason 99');
  expect(answer(Rdm.RESPONSE_TYPE_NACK_REASON, Uint8Array.of(0))).toMatchObject({ reason: 'cut' });
  expect(answer(9, data)).toMatchObject({ reason: 'no-answer' });
  expect(answer(Rdm.RESPONSE_TYPE_ACK, data, Rdm.GET_COMMAND)).toMatchObject({ reason: 'no-answer' });
});

test('a UID is written and read as people write it', () => {
  expect(value(parseUid(' 7FF100000012 '))).toBe('7ff1:00000012');
  expect(value(parseUid('7ff1:00000012'))).toBe('7ff1:00000012');
  expect(parseUid('7ff1:12')).toMatchObject({ ok: false });
  expect([BROADCAST, allOf(0x7ff1), '7ff1:00000012'].map(isBroadcast)).toEqual([true, true, false]);
});

describe('parameters are read as they were written', () => {
  const label = () => Array.from({ length: whole(32) }, () => String.fromCharCode(whole(0x7e, 0x20))).join('');
  const word = () => whole(0xffff);
  const signed = () => whole(0x7fff, -0x8000);
  const again = <T>(make: () => T, encode: (one: T) => Uint8Array, decode: (data: Uint8Array) => T) => {
    for (let i = 0; i < 100; i += 1) {
      const one = make();
      expect(decode(encode(one))).toEqual(one);
    }
  };

  test('device information', () =>
    again(
      () => ({
        protocol: 0x0100,
        model: word(),
        category: word(),
        software: whole(0xffff_ffff),
        footprint: whole(512),
        personality: whole(255),
        personalities: whole(255),
        startAddress: whole(512, 1),
        subDevices: whole(512),
        sensors: whole(255),
      }),
      encodeDeviceInfo,
      (data) => value(decodeDeviceInfo(data)),
    ));
  test('labels; what is no ASCII becomes a question mark, and nothing beyond a NUL is read', () => {
    again(label, encodeLabel, decodeLabel);
    expect(decodeLabel(encodeLabel('Bühne 1'))).toBe('B?hne 1');
    expect(encodeLabel('x'.repeat(40))).toHaveLength(32);
    expect(decodeLabel(Uint8Array.of(65, 0, 66))).toBe('A');
  });
  test('personalities, slots and start addresses', () => {
    again(
      () => ({ personality: whole(255), footprint: whole(512), name: label() }),
      encodePersonalityDescription,
      (data) => value(decodePersonalityDescription(data)),
    );
    again(
      () => Array.from({ length: whole(40) }, (_, slot) => ({ slot, type: whole(255), label: word() })),
      encodeSlotInfo,
      (data) => value(decodeSlotInfo(data)),
    );
    expect(value(decodeStartAddress(encodeStartAddress(512)))).toBe(512);
    expect(value(decodeStartAddress(encodeStartAddress(Rdm.NO_START_ADDRESS)))).toBeNull();
    expect(value(decodePersonality(Uint8Array.of(2, 5)))).toEqual({ now: 2, count: 5 });
  });
  test('sensors', () => {
    again(
      () => ({
        sensor: whole(254),
        type: whole(255),
        unit: whole(255),
        prefix: whole(255),
        range: [signed(), signed()] as const,
        normal: [signed(), signed()] as const,
        keeps: whole(3),
        name: label(),
      }),
      encodeSensorDefinition,
      (data) => value(decodeSensorDefinition(data)),
    );
    again(
      () => ({ sensor: whole(254), now: signed(), lowest: signed(), highest: signed(), kept: signed() }),
      encodeSensorValue,
      (data) => value(decodeSensorValue(data)),
    );
    expect(sensorText(41, { unit: 0x01, prefix: 0x00 })).toBe('41 °C');
    expect(sensorText(350, { unit: 0x05, prefix: 0x03 })).toBe('0.350 A');
    expect(sensorText(-4, { unit: 0xee, prefix: 0x13 })).toBe('-4000');
  });
  test('lists and descriptions of parameters', () => {
    again(
      () => Array.from({ length: whole(60) }, word),
      encodeSupported,
      (data) => value(decodeSupported(data)),
    );
    again(
      () => ({
        pid: word(),
        size: whole(231),
        type: whole(255),
        commands: whole(3, 1),
        unit: whole(255),
        prefix: whole(255),
        least: whole(0xffff_ffff),
        most: whole(0xffff_ffff),
        first: whole(0xffff_ffff),
        name: label(),
      }),
      encodeParameterDescription,
      (data) => value(decodeParameterDescription(data)),
    );
  });

  test.each([
    ['device information', decodeDeviceInfo, 18],
    ['start address', decodeStartAddress, 1],
    ['personality', decodePersonality, 1],
    ['personality description', decodePersonalityDescription, 2],
    ['slots', decodeSlotInfo, 7],
    ['sensor', decodeSensorDefinition, 12],
    ['sensor value', decodeSensorValue, 8],
    ['supported parameters', decodeSupported, 3],
    ['parameter description', decodeParameterDescription, 19],
  ])('%s that is cut short is refused in a sentence', (_, decode, length) => {
    const decoded = decode(new Uint8Array(length)) as { ok: boolean; why?: string };
    expect(decoded.ok).toBe(false);
    expect(decoded.why).toMatch(/\.$/);
  });
});
