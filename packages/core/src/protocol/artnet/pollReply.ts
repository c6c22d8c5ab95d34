/** ArtPollReply: a device's account of itself, 239 bytes, four ports a page (Art-Net 4, ArtPollReply). */
import { integer, report, word, yesNo, type ReportOf } from '../../base/field';
import { joinPortAddress } from '../../base/address';
import { readText, readU16, writeText, writeU16 } from '../../base/bytes';
import { ok, type Result } from '../../base/result';
import * as A from './constants';
import { refuseArtNet, newPacket, readIp, refuseHeader, writeIp, type ArtNetRejection } from './header';

export const POLL_REPLY_LENGTH = 239;
/** Old devices end before the hardware address, or after it; what they leave out reads as zero. */
const SHORTEST_POLL_REPLY = 201;
export const PORTS_PER_PAGE = 4;

/** One of the four ports of a page; the bytes are those on the wire. */
export interface PollReplyPort {
  readonly type: number;
  readonly goodInput: number;
  readonly goodOutputA: number;
  readonly goodOutputB: number;
  /** Low four bits of the input's and of the output's Port-Address. */
  readonly swIn: number;
  readonly swOut: number;
}

export interface ArtPollReply {
  readonly kind: 'pollReply';
  /** Dotted */
  readonly ip: string;
  readonly port: number;
  readonly version: number;
  /** Bits 14–8 and 7–4 of all Port-Addresses of this page. */
  readonly netSwitch: number;
  readonly subSwitch: number;
  readonly oem: number;
  readonly ubeaVersion: number;
  readonly status1: number;
  readonly estaManufacturer: number;
  /** At most 17 bytes of UTF-8 */
  readonly portName: string;
  /** At most 63 bytes of UTF-8 */
  readonly longName: string;
  readonly nodeReport: string;
  /** 0–4 */
  readonly portCount: number;
  /** Always four, whatever `portCount` says. */
  readonly ports: readonly PollReplyPort[];
  readonly acnPriority: number;
  readonly swMacro: number;
  readonly swRemote: number;
  readonly style: number;
  /** 6 bytes */
  readonly mac: Uint8Array;
  readonly bindIp: string;
  /** 0 or 1 is the root device. */
  readonly bindIndex: number;
  readonly status2: number;
  readonly status3: number;
  /** 6 bytes */
  readonly defaultResponder: Uint8Array;
  readonly user: number;
  /** Highest refresh rate in hertz; 0 if the device does not say. */
  readonly refreshRate: number;
  readonly backgroundQueuePolicy: number;
}

export function decodePollReply(packet: Uint8Array): Result<ArtPollReply, ArtNetRejection> {
  const reason = refuseHeader(packet, A.OpPollReply, SHORTEST_POLL_REPLY);
  if (reason) return refuseArtNet(reason);
  const bytes = new Uint8Array(POLL_REPLY_LENGTH);
  bytes.set(packet.subarray(0, POLL_REPLY_LENGTH));
  const portCount = readU16(bytes, 172);
  if (portCount > PORTS_PER_PAGE) return refuseArtNet('bad-port-count');
  return ok({
    kind: 'pollReply',
    ip: readIp(bytes, 10),
    port: bytes[14]! | (bytes[15]! << 8),
    version: readU16(bytes, 16),
    netSwitch: bytes[18]!,
    subSwitch: bytes[19]!,
    oem: readU16(bytes, 20),
    ubeaVersion: bytes[22]!,
    status1: bytes[23]!,
    estaManufacturer: bytes[24]! | (bytes[25]! << 8),
    portName: readText(bytes, 26, 18),
    longName: readText(bytes, 44, 64),
    nodeReport: readText(bytes, 108, 64),
    portCount,
    ports: Array.from({ length: PORTS_PER_PAGE }, (_, i) => ({
      type: bytes[174 + i]!,
      goodInput: bytes[178 + i]!,
      goodOutputA: bytes[182 + i]!,
      goodOutputB: bytes[213 + i]!,
      swIn: bytes[186 + i]!,
      swOut: bytes[190 + i]!,
    })),
    acnPriority: bytes[194]!,
    swMacro: bytes[195]!,
    swRemote: bytes[196]!,
    style: bytes[200]!,
    mac: bytes.slice(201, 207),
    bindIp: readIp(bytes, 207),
    bindIndex: bytes[211]!,
    status2: bytes[212]!,
    status3: bytes[217]!,
    defaultResponder: bytes.slice(218, 224),
    user: readU16(bytes, 224),
    refreshRate: readU16(bytes, 226),
    backgroundQueuePolicy: bytes[228]!,
  });
}

export function encodePollReply(message: Omit<ArtPollReply, 'kind'>): Uint8Array {
  const bytes = newPacket(A.OpPollReply, POLL_REPLY_LENGTH);
  writeIp(bytes, 10, message.ip);
  bytes[14] = message.port & 0xff;
  bytes[15] = message.port >> 8;
  writeU16(bytes, 16, message.version);
  bytes[18] = message.netSwitch;
  bytes[19] = message.subSwitch;
  writeU16(bytes, 20, message.oem);
  bytes[22] = message.ubeaVersion;
  bytes[23] = message.status1;
  bytes[24] = message.estaManufacturer & 0xff;
  bytes[25] = message.estaManufacturer >> 8;
  writeText(bytes, 26, 18, message.portName);
  writeText(bytes, 44, 64, message.longName);
  writeText(bytes, 108, 64, message.nodeReport);
  writeU16(bytes, 172, message.portCount);
  message.ports.slice(0, PORTS_PER_PAGE).forEach((port, i) => {
    bytes[174 + i] = port.type;
    bytes[178 + i] = port.goodInput;
    bytes[182 + i] = port.goodOutputA;
    bytes[186 + i] = port.swIn;
    bytes[190 + i] = port.swOut;
    bytes[213 + i] = port.goodOutputB;
  });
  bytes[194] = message.acnPriority;
  bytes[195] = message.swMacro;
  bytes[196] = message.swRemote;
  bytes[200] = message.style;
  bytes.set(message.mac.subarray(0, 6), 201);
  writeIp(bytes, 207, message.bindIp);
  bytes[211] = message.bindIndex;
  bytes[212] = message.status2;
  bytes[217] = message.status3;
  bytes.set(message.defaultResponder.subarray(0, 6), 218);
  writeU16(bytes, 224, message.user);
  writeU16(bytes, 226, message.refreshRate);
  bytes[228] = message.backgroundQueuePolicy;
  return bytes;
}

/** A page that says nothing; to be spread into by a device that fills in what it has. */
export const blankPollReply = (ip: string, mac: Uint8Array): Omit<ArtPollReply, 'kind'> => ({
  ip,
  port: A.ARTNET_PORT,
  version: 1,
  netSwitch: 0,
  subSwitch: 0,
  oem: A.OEM_UNKNOWN,
  ubeaVersion: 0,
  status1: 0xe0,
  estaManufacturer: 0x7ff0,
  portName: '',
  longName: '',
  nodeReport: '',
  portCount: 0,
  ports: [],
  acnPriority: 100,
  swMacro: 0,
  swRemote: 0,
  style: A.StNode,
  mac,
  bindIp: ip,
  bindIndex: 1,
  status2: A.STATUS2_PORT_ADDRESS_15_BIT | A.STATUS2_SACN_CAPABLE,
  status3: 0,
  defaultResponder: new Uint8Array(6),
  user: 0,
  refreshRate: 44,
  backgroundQueuePolicy: 0,
});

/** One port of a device, read from the page that it stands on. */
export const devicePort = report('', {
  index: integer('Place on its page, 0–3.'),
  direction: word(['out', 'in']),
  portAddress: integer('Port-Address, or sACN universe where `sacn`.'),
  active: yesNo('Data is passing now: output sent, or input received.'),
  merging: yesNo(),
  ltp: yesNo(),
  sacn: yesNo('The port is set to sACN instead of Art-Net.'),
  rdm: yesNo(),
  disabled: yesNo('An input that is switched off.'),
});
export interface DevicePort extends ReportOf<typeof devicePort.fields> {}

/** The ports that a page really has, with whole Port-Addresses; one that is both ways is told twice. */
export function portsOf(page: ArtPollReply): DevicePort[] {
  const ports: DevicePort[] = [];
  const whole = (universe: number) => joinPortAddress({ net: page.netSwitch, sub: page.subSwitch, universe });
  page.ports.slice(0, page.portCount).forEach((port, index) => {
    if (port.type & A.PORT_CAN_OUTPUT)
      ports.push({
        index,
        direction: 'out',
        portAddress: whole(port.swOut),
        active: (port.goodOutputA & A.OUTPUT_SENDING) !== 0,
        merging: (port.goodOutputA & A.OUTPUT_MERGING) !== 0,
        ltp: (port.goodOutputA & A.OUTPUT_MERGE_LTP) !== 0,
        sacn: (port.goodOutputA & A.OUTPUT_FROM_SACN) !== 0,
        rdm: (port.goodOutputB & A.OUTPUT_RDM_DISABLED) === 0,
        disabled: false,
      });
    if (port.type & A.PORT_CAN_INPUT)
      ports.push({
        index,
        direction: 'in',
        portAddress: whole(port.swIn),
        active: (port.goodInput & A.INPUT_DATA_RECEIVED) !== 0,
        merging: false,
        ltp: false,
        sacn: (port.goodInput & A.INPUT_TO_SACN) !== 0,
        rdm: false,
        disabled: (port.goodInput & A.INPUT_DISABLED) !== 0,
      });
  });
  return ports;
}
