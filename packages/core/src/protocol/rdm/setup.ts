/** How a responder takes DMX: personality, start address, its slots (ANSI E1.20-2010, 10.6). */
import { readU16, writeU16 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import { NO_START_ADDRESS } from './constants';
import { decodeLabel, encodeLabel } from './device';

const cut = (what: string) => refuse('bad-length', `${what} is cut short.`);
type Cut<T> = Result<T, 'bad-length'>;

/** Null for a responder that has none. */
export function decodeStartAddress(data: Uint8Array): Cut<number | null> {
  if (data.length !== 2) return cut('The start address');
  const address = readU16(data, 0);
  return ok(address === NO_START_ADDRESS ? null : address);
}

export function encodeStartAddress(address: number): Uint8Array {
  const data = new Uint8Array(2);
  writeU16(data, 0, address);
  return data;
}

export interface Personality {
  /** From 1 */
  readonly now: number;
  readonly count: number;
}

export const decodePersonality = (data: Uint8Array): Cut<Personality> =>
  data.length === 2 ? ok({ now: data[0]!, count: data[1]! }) : cut('The personality');

export interface PersonalityDescription {
  readonly personality: number;
  readonly footprint: number;
  readonly name: string;
}

export const decodePersonalityDescription = (data: Uint8Array): Cut<PersonalityDescription> =>
  data.length >= 3
    ? ok({ personality: data[0]!, footprint: readU16(data, 1), name: decodeLabel(data.subarray(3)) })
    : cut('The description of a personality');

export function encodePersonalityDescription({ personality, footprint, name }: PersonalityDescription): Uint8Array {
  const text = encodeLabel(name);
  const data = new Uint8Array(3 + text.length);
  data[0] = personality;
  writeU16(data, 1, footprint);
  data.set(text, 3);
  return data;
}

export interface SlotInfo {
  /** From 0 */
  readonly slot: number;
  /** 0 primary; others belong to a primary one */
  readonly type: number;
  /** Of a primary slot what it is; of another the slot it belongs to (tables C-1, C-2) */
  readonly label: number;
}
const SLOT_BYTES = 5;

export function decodeSlotInfo(data: Uint8Array): Cut<SlotInfo[]> {
  if (data.length % SLOT_BYTES !== 0) return cut('The list of slots');
  return ok(
    Array.from({ length: data.length / SLOT_BYTES }, (_, i) => ({
      slot: readU16(data, i * SLOT_BYTES),
      type: data[i * SLOT_BYTES + 2]!,
      label: readU16(data, i * SLOT_BYTES + 3),
    })),
  );
}

export function encodeSlotInfo(slots: readonly SlotInfo[]): Uint8Array {
  const data = new Uint8Array(slots.length * SLOT_BYTES);
  slots.forEach(({ slot, type, label }, i) => {
    writeU16(data, i * SLOT_BYTES, slot);
    data[i * SLOT_BYTES + 2] = type;
    writeU16(data, i * SLOT_BYTES + 3, label);
  });
  return data;
}

/** Values of slots that nothing sets, by slot from 0 (10.6.6). What is cut short is left out. */
export function decodeDefaults(data: Uint8Array): Map<number, number> {
  const values = new Map<number, number>();
  for (let at = 0; at + 2 < data.length; at += 3) values.set(readU16(data, at), data[at + 2]!);
  return values;
}
