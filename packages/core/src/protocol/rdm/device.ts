/** What a responder is: device information and its labels (ANSI E1.20-2010, 10.5). */
import { readU16, readU32, writeU16, writeU32 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import { MOST_LABEL } from './constants';

export interface DeviceInfo {
  /** As of ANSI E1.20-2010: 0x0100 */
  readonly protocol: number;
  readonly model: number;
  readonly category: number;
  readonly software: number;
  /** Slots in its present personality */
  readonly footprint: number;
  /** From 1 */
  readonly personality: number;
  readonly personalities: number;
  /** 1–512; 0xffff for none */
  readonly startAddress: number;
  readonly subDevices: number;
  readonly sensors: number;
}

const LENGTH = 19;

export function decodeDeviceInfo(data: Uint8Array): Result<DeviceInfo, 'bad-length'> {
  if (data.length !== LENGTH) return refuse('bad-length', `Device information has ${LENGTH} bytes.`);
  return ok({
    protocol: readU16(data, 0),
    model: readU16(data, 2),
    category: readU16(data, 4),
    software: readU32(data, 6),
    footprint: readU16(data, 10),
    personality: data[12]!,
    personalities: data[13]!,
    startAddress: readU16(data, 14),
    subDevices: readU16(data, 16),
    sensors: data[18]!,
  });
}

export function encodeDeviceInfo(info: DeviceInfo): Uint8Array {
  const data = new Uint8Array(LENGTH);
  writeU16(data, 0, info.protocol);
  writeU16(data, 2, info.model);
  writeU16(data, 4, info.category);
  writeU32(data, 6, info.software);
  writeU16(data, 10, info.footprint);
  data.set([info.personality, info.personalities], 12);
  writeU16(data, 14, info.startAddress);
  writeU16(data, 16, info.subDevices);
  data[18] = info.sensors;
  return data;
}

/** Text up to its end or its first NUL; characters beyond ASCII as they come. */
export const decodeLabel = (data: Uint8Array): string => {
  const end = data.indexOf(0);
  return new TextDecoder('latin1').decode(end < 0 ? data : data.subarray(0, end));
};

/** ASCII, at most {@link MOST_LABEL} characters; what is none becomes a question mark. */
export const encodeLabel = (text: string): Uint8Array =>
  Uint8Array.from([...text].slice(0, MOST_LABEL), (character) => {
    const code = character.codePointAt(0)!;
    return code >= 0x20 && code < 0x7f ? code : 0x3f;
  });
