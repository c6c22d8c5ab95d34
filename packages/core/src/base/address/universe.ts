/** Universes and channels: the three numberings a show meets, and the notation `universe/channel`. */
import { ok, refuse, type Result } from '../result';

export const SLOTS = 512;

/** Lowest and highest sACN universe for data (ANSI E1.31-2018, 6.2.7). */
export const SACN_FIRST = 1;
export const SACN_LAST = 63999;

/** Highest 15-bit Art-Net Port-Address. */
export const PORT_ADDRESS_LAST = 0x7fff;

/** Highest number that a protocol gives a universe. */
export const lastWireNumber = (protocol: Protocol): number => (protocol === 'sacn' ? SACN_LAST : PORT_ADDRESS_LAST);

/** Highest number we allow for a show's own universe. */
export const SHOW_UNIVERSE_LAST = 63999;

export type Protocol = 'sacn' | 'artnet';

/** A universe as it travels: protocol and the number that stands in the packet. */
export interface WireUniverse {
  readonly protocol: Protocol;
  /** sACN: 1–63999. Art-Net: Port-Address 0–32767. */
  readonly number: number;
}

/** What a device calls its first universe: some count Art-Net from 0, some from 1. */
export type NumberingBase = 0 | 1;

const wholeNumber = (text: string): number | undefined => {
  const trimmed = text.trim();
  return /^\d{1,9}$/.test(trimmed) ? Number(trimmed) : undefined;
};

function readWithin(text: string, what: string, first: number, last: number): Result<number> {
  const number = wholeNumber(text);
  if (number === undefined) return refuse('not-understood', `“${text.trim()}” is not ${what}: type a whole number.`);
  if (number < first || number > last)
    return refuse('out-of-range', `${number} is not ${what}: these run from ${first} to ${last}.`);
  return ok(number);
}

/** Reads a show universe, 1–63999; a leading `u` is allowed. */
export const readShowUniverse = (text: string): Result<number> =>
  readWithin(text.trim().replace(/^u\s*/i, ''), 'a show universe', 1, SHOW_UNIVERSE_LAST);

/** Reads an sACN universe, 1–63999. */
export const readSacnUniverse = (text: string): Result<number> =>
  readWithin(text, 'an sACN universe', SACN_FIRST, SACN_LAST);

/** Reads a channel, 1–512. */
export const readChannel = (text: string): Result<number> => readWithin(text, 'a channel', 1, SLOTS);

/** A place in the show: show universe and channel, both from 1. */
export interface SlotAddress {
  readonly universe: number;
  readonly channel: number;
}

/** Of a lamp to which nobody has given one */
export const NO_ADDRESS: SlotAddress = { universe: 0, channel: 0 };

export const isAddressed = ({ universe }: SlotAddress): boolean => universe !== 0;

export const formatAddress = (at: SlotAddress): string =>
  isAddressed(at) ? `${at.universe}/${at.channel}` : 'no address';

/** Reads `universe/channel`, as in `3/47`. */
export function readAddress(text: string): Result<SlotAddress> {
  const parts = text.split('/');
  if (parts.length !== 2)
    return refuse('not-understood', `“${text.trim()}” is not an address: write universe/channel, as in 3/47.`);
  const universe = readShowUniverse(parts[0]!);
  if (!universe.ok) return universe;
  const channel = readChannel(parts[1]!);
  if (!channel.ok) return channel;
  return ok({ universe: universe.value, channel: channel.value });
}

/** Reads `universe/channel`, or that there is none: nothing at all, `none`, `no address`, `0` or a dash. */
export const readLampAddress = (text: string): Result<SlotAddress> =>
  /^(none|no address|0(\/0)?|[-–—])?$/i.test(text.trim()) ? ok(NO_ADDRESS) : readAddress(text);

/** A run of channels in one universe, both ends included. */
export interface SlotRange {
  readonly universe: number;
  readonly from: number;
  readonly to: number;
}

/** Reads one slot (`3/47`) or a run of them (`3/1-24`, ends in either order). */
export function readRange(text: string): Result<SlotRange> {
  const [head, tail, ...more] = text.split(/[-–]/);
  if (head === undefined || more.length > 0)
    return refuse('not-understood', `“${text.trim()}” is not a run of channels: write 3/47 or 3/1-24.`);
  const start = readAddress(head);
  if (!start.ok) return start;
  if (tail === undefined)
    return ok({ universe: start.value.universe, from: start.value.channel, to: start.value.channel });
  const end = readChannel(tail);
  if (!end.ok) return end;
  return ok({
    universe: start.value.universe,
    from: Math.min(start.value.channel, end.value),
    to: Math.max(start.value.channel, end.value),
  });
}

export const formatRange = ({ universe, from, to }: SlotRange): string =>
  from === to ? `${universe}/${from}` : `${universe}/${from}–${to}`;

/**
 * The absolute channel, counted through all universes of 512, from `base` (0 or 1).
 * Universe 2 channel 1 is 513 in base 1.
 */
export const toAbsolute = ({ universe, channel }: SlotAddress, base: NumberingBase = 1): number =>
  (universe - 1) * SLOTS + (channel - 1) + base;

/** The address of an absolute channel; refused below the base or beyond the last universe. */
export function fromAbsolute(absolute: number, base: NumberingBase = 1): Result<SlotAddress> {
  const index = absolute - base;
  if (!Number.isInteger(absolute) || index < 0)
    return refuse('out-of-range', `${absolute} is not an absolute channel: these start at ${base}.`);
  const universe = Math.floor(index / SLOTS) + 1;
  if (universe > SHOW_UNIVERSE_LAST)
    return refuse('out-of-range', `${absolute} lies beyond universe ${SHOW_UNIVERSE_LAST}, the last one.`);
  return ok({ universe, channel: (index % SLOTS) + 1 });
}
