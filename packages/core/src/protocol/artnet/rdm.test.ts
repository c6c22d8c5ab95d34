/** RDM over Art-Net: byte for byte, whatever is written is read again, and any bytes at all are read or named. */
import { random } from '../../truth/fault';
import { BROADCAST, Rdm, decodeRdm, encodeRdm, formatUid, type Uid } from '../rdm';
import * as A from './constants';
import {
  decodeArtRdm,
  encodeArtRdm,
  encodeRdmSub,
  encodeTod,
  encodeTodControl,
  encodeTodRequest,
  type ArtRdmMessage,
} from './rdm';

const hex = (bytes: Uint8Array, from: number): string => Buffer.from(bytes.subarray(from)).toString('hex');
const read = (bytes: Uint8Array): ArtRdmMessage => {
  const decoded = decodeArtRdm(bytes);
  if (!decoded.ok) throw new Error(decoded.why);
  return decoded.value;
};

test('a request for tables, byte for byte: net in one place, low bytes behind their count', () => {
  const bytes = encodeTodRequest([0x123, 0x145]);
  expect(bytes).toHaveLength(56);
  expect(hex(bytes.subarray(0, 26), 8)).toBe('0080000e000000000000000000010002' + '2345');
  expect(read(bytes)).toEqual({ kind: 'todRequest', portAddresses: [0x123, 0x145] });
  expect(() => encodeTodRequest([0x123, 0x223])).toThrow(/one net/);
  expect(() => encodeTodRequest(Array.from({ length: 33 }, () => 1))).toThrow(/32/);
});

test('a table of devices goes in parts of two hundred, each told how many there are', () => {
  const uids = Array.from({ length: 450 }, (_, i) => formatUid(0x7ff1, i));
  const where = { port: 3, bindIndex: 2, portAddress: 0x123, full: true };
  const parts = encodeTod(uids, where).map(read);
  expect(parts.map((part) => part.kind === 'todData' && [part.block, part.total, part.uids.length])).toEqual([
    [0, 450, 200],
    [1, 450, 200],
    [2, 450, 50],
  ]);
  expect(parts.flatMap((part) => (part.kind === 'todData' ? part.uids : []))).toEqual(uids);
  expect(encodeTod([], { ...where, full: false }).map(read)).toEqual([
    { kind: 'todData', ...where, full: false, total: 0, block: 0, uids: [] },
  ]);
});

test('a request to a lamp goes without its start code, byte for byte', () => {
  const packet = encodeRdm({
    destination: '7ff1:00000012',
    source: '7ff0:00000001',
    transaction: 9,
    portOrType: 1,
    waiting: 0,
    subDevice: 0,
    commandClass: Rdm.GET_COMMAND,
    pid: Rdm.DEVICE_INFO,
    data: new Uint8Array(0),
  });
  const bytes = encodeArtRdm({ portAddress: 0x123, fifoAvailable: 0, fifoMost: 0, packet: packet.subarray(1) });
  expect(hex(bytes, 8)).toBe(`0083000e01${'00'.repeat(8)}010023${hex(packet, 1)}`);
  const message = read(bytes);
  expect(message).toMatchObject({ kind: 'rdm', portAddress: 0x123 });
  const inner = message.kind === 'rdm' && decodeRdm(Uint8Array.of(Rdm.SC_RDM, ...message.packet));
  expect(inner).toMatchObject({ ok: true, value: { destination: '7ff1:00000012', pid: Rdm.DEVICE_INFO } });
});

test('whatever is written is read again', () => {
  const next = random(3);
  const whole = (most: number): number => Math.floor(next() * (most + 1));
  const uid = (): Uid => formatUid(whole(0xffff), whole(0xffff_ffff));
  for (let i = 0; i < 300; i += 1) {
    const control = { command: whole(4), portAddress: whole(0x7fff) };
    expect(read(encodeTodControl(control))).toEqual({ kind: 'todControl', ...control });
    const sub = {
      uid: uid(),
      commandClass: Rdm.SET_COMMAND,
      pid: whole(0xffff),
      subDevice: whole(512),
      count: whole(10),
      values: Array.from({ length: whole(10) }, () => whole(0xffff)),
    };
    expect(read(encodeRdmSub(sub))).toEqual({ kind: 'rdmSub', ...sub });
    const rdm = {
      portAddress: whole(0x7fff),
      fifoAvailable: whole(255),
      fifoMost: whole(255),
      packet: Uint8Array.from({ length: 2 + whole(250) }, () => whole(255)),
    };
    expect(read(encodeArtRdm(rdm))).toEqual({ kind: 'rdm', ...rdm });
  }
});

test('any bytes at all are a message or a named rejection', () => {
  const next = random(4);
  const good = [
    encodeTodRequest([1, 2]),
    ...encodeTod([BROADCAST, formatUid(1, 2)], { port: 1, bindIndex: 1, portAddress: 5, full: true }),
    encodeTodControl({ command: A.AtcFlush, portAddress: 5 }),
    encodeArtRdm({ portAddress: 5, fifoAvailable: 0, fifoMost: 0, packet: new Uint8Array(30) }),
    encodeRdmSub({ uid: BROADCAST, commandClass: 0x21, pid: 1, subDevice: 0, count: 1, values: [3] }),
  ];
  for (let i = 0; i < 3000; i += 1) {
    const bytes = Uint8Array.from(good[i % good.length]!).subarray(0, Math.floor(next() * 70));
    for (let n = 0; n < 3 && bytes.length > 0; n += 1)
      bytes[Math.floor(next() * bytes.length)] = Math.floor(next() * 256);
    const decoded = decodeArtRdm(bytes);
    if (!decoded.ok) expect(decoded.why).toMatch(/\.$/);
  }
  const many = encodeTod([BROADCAST], { port: 1, bindIndex: 1, portAddress: 5, full: true })[0]!;
  many[27] = 201;
  expect(decodeArtRdm(many)).toMatchObject({ ok: false, reason: 'bad-length' });
});
