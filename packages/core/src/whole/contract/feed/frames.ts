/** Binary messages of the feed, big-endian. Values per slot travel here and never as text. */
import { SLOTS } from '../../../base/address';
import type { SlotContender } from '../../../signal/merge';

const UNIVERSE = 1;
const CONTENDERS = 2;
const LEVELS = 3;

export const UNIVERSE_FRAME_LENGTH = 12 + 2 * SLOTS;
const CONTENDER_LENGTH = 12;
const NEVER = 0xffffffff;

/** The merged levels of one universe and the mark of the stream that owns each slot. */
export interface UniverseFrame {
  readonly kind: 'universe';
  readonly key: number;
  /** Rises with every change */
  readonly version: number;
  readonly values: Uint8Array;
  readonly owners: Uint8Array;
}

export interface ContendersFrame {
  readonly kind: 'contenders';
  readonly key: number;
  /** 0–511 */
  readonly slot: number;
  readonly contenders: readonly SlotContender[];
}

/** New levels for slots that the client has taken. */
export interface LevelsFrame {
  readonly kind: 'levels';
  readonly key: number;
  /** Pairs of slot (0–511) and level */
  readonly levels: readonly (readonly [number, number])[];
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

export function encodeUniverseFrame(key: number, version: number, values: Uint8Array, owners: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(UNIVERSE_FRAME_LENGTH);
  const view = viewOf(bytes);
  view.setUint8(0, UNIVERSE);
  view.setUint32(4, key);
  view.setUint32(8, version);
  bytes.set(values, 12);
  bytes.set(owners, 12 + SLOTS);
  return bytes;
}

export function encodeContendersFrame(key: number, slot: number, contenders: readonly SlotContender[]): Uint8Array {
  const bytes = new Uint8Array(8 + contenders.length * CONTENDER_LENGTH);
  const view = viewOf(bytes);
  view.setUint8(0, CONTENDERS);
  view.setUint16(2, slot);
  view.setUint32(4, key);
  contenders.forEach(({ mark, value, priority, age }, i) => {
    const at = 8 + i * CONTENDER_LENGTH;
    view.setUint8(at, mark);
    view.setUint8(at + 1, value);
    view.setInt16(at + 2, priority);
    view.setUint32(at + 4, age === null ? NEVER : Math.min(NEVER - 1, Math.max(0, Math.round(age))));
  });
  return bytes;
}

export function encodeLevelsFrame(key: number, levels: readonly (readonly [number, number])[]): Uint8Array {
  const bytes = new Uint8Array(8 + levels.length * 3);
  const view = viewOf(bytes);
  view.setUint8(0, LEVELS);
  view.setUint32(4, key);
  levels.forEach(([slot, level], i) => {
    view.setUint16(8 + i * 3, slot);
    view.setUint8(10 + i * 3, level);
  });
  return bytes;
}

/** Any bytes: the frame, or nothing if they are none. The arrays of a universe frame are views into `bytes`. */
export function decodeFrame(bytes: Uint8Array): UniverseFrame | ContendersFrame | LevelsFrame | undefined {
  if (bytes.length < 8) return undefined;
  const view = viewOf(bytes);
  const key = view.getUint32(4);
  switch (bytes[0]) {
    case UNIVERSE:
      if (bytes.length !== UNIVERSE_FRAME_LENGTH) return undefined;
      return {
        kind: 'universe',
        key,
        version: view.getUint32(8),
        values: bytes.subarray(12, 12 + SLOTS),
        owners: bytes.subarray(12 + SLOTS),
      };
    case CONTENDERS: {
      if ((bytes.length - 8) % CONTENDER_LENGTH !== 0) return undefined;
      const contenders: SlotContender[] = [];
      for (let at = 8; at < bytes.length; at += CONTENDER_LENGTH) {
        const age = view.getUint32(at + 4);
        contenders.push({
          mark: view.getUint8(at),
          value: view.getUint8(at + 1),
          priority: view.getInt16(at + 2),
          age: age === NEVER ? null : age,
        });
      }
      return { kind: 'contenders', key, slot: view.getUint16(2), contenders };
    }
    case LEVELS: {
      if ((bytes.length - 8) % 3 !== 0) return undefined;
      const levels: [number, number][] = [];
      for (let at = 8; at < bytes.length; at += 3) {
        const slot = view.getUint16(at);
        if (slot >= SLOTS) return undefined;
        levels.push([slot, view.getUint8(at + 2)]);
      }
      return { kind: 'levels', key, levels };
    }
    default:
      return undefined;
  }
}
