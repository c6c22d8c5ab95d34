/** Addresses as people write them in tables. */
import {
  formatPortAddress,
  fromAbsolute,
  NO_ADDRESS,
  type NumberingBase,
  readAddress,
  readPortAddress,
  type SlotAddress,
} from '../../../base/address';
import { ok, refuse, type Result } from '../../../base/result';
import type { ShowRecords } from '../../../show/records';

export interface AddressBases {
  /** The lowest channel is called so */
  readonly channelBase: NumberingBase;
  /** The lowest universe is called so */
  readonly universeBase: NumberingBase;
}

const NOTHING = /^(|-+|–|—|none|no address|n\/?a|unpatched|not patched|0|0[/.:]0|\?|tbd|x)$/i;

/** `3`, `U3`, `Universe 3`, or a letter as A for the first. */
function readUniverse(text: string): number | undefined {
  const said = text.trim();
  if (/^[A-Za-z]$/.test(said)) return said.toUpperCase().charCodeAt(0) - 64;
  const number = /^(?:u|uni|univ|universe|universum)?\.?\s*(\d+)(?:\.0+)?$/i.exec(said);
  return number ? Number(number[1]) : undefined;
}

/** `3/47`, `3.47`, `3:47`, `A.12`, `1/1-8`, `0.1.2/47` (Art-Net, which must be in the show), or an absolute channel. */
export function readAnyAddress(
  text: string,
  { channelBase, universeBase }: AddressBases,
  { universe: universes }: Pick<ShowRecords, 'universe'>,
): Result<SlotAddress> {
  const said = text.trim();
  if (NOTHING.test(said)) return ok(NO_ADDRESS);
  const shifted = (universe: number, channel: number, base: NumberingBase = universeBase): Result<SlotAddress> =>
    readAddress(`${universe + 1 - base}/${channel + 1 - channelBase}`);
  // “2.009-2.016”, “3/1 to 3/24”: both ends with their universe.
  const both = /^(.*\d\s*[/.:]\s*\d+)\s*(?:-|–|—|to|\.\.)\s*(.*\d\s*[/.:]\s*\d+)$/i.exec(said);
  if (both) return readAnyAddress(both[1]!, { channelBase, universeBase }, { universe: universes });
  // “1-47” may be universe and channel, or a run of channels: that is not known.
  if (/^\d+\s*[-–—]\s*\d+$/.test(said))
    return refuse(
      'not-understood',
      `“${said}” can mean two addresses: write 1/47, or the channels and their universe apart.`,
    );
  // How far it reaches is known by its mode.
  const start = said.replace(/(\d)\s*(?:-|–|—|to|\.\.)\s*\d+$/i, '$1').trim();
  const port = /^(\d+\.\d+\.\d+)\s*[/:]\s*(\d+)$/.exec(start);
  if (port) {
    const number = readPortAddress(port[1]!);
    if (!number.ok) return number;
    const found = universes.find(({ protocol, wire }) => protocol === 'artnet' && wire === number.value);
    return found
      ? readAddress(`${found.number}/${Number(port[2]) + 1 - channelBase}`)
      : refuse('not-found', `No universe of the show travels as Art-Net ${formatPortAddress(number.value)}.`);
  }
  const pair =
    /^((?:u|uni|univ|universe)?\.?\s*\d+)\s*[/.:,;]\s*(\d+)$/i.exec(start) ??
    // “3 47”, “U3 CH47”, “U2 A17”, “Universe 3 address 47”
    /^((?:u|uni|univ|universe)?\.?\s*\d+)\s+(?:(?:c|ch|chan|channel|a|addr|address|dmx|slot)\.?\s*)?(\d+)$/i.exec(
      start,
    ) ??
    /^((?:u|uni|univ|universe)\.?\s*\d+)\s*(?:c|ch|chan|channel|a|addr|address|dmx|slot)\.?\s*(\d+)$/i.exec(start);
  if (pair) return shifted(readUniverse(pair[1]!)!, Number(pair[2]));
  // Letters count from A, whatever numbers count from.
  const lettered = /^([A-Za-z])\s*[/.:\- ]?\s*(\d+)$/.exec(start);
  if (lettered) return shifted(readUniverse(lettered[1]!)!, Number(lettered[2]), 1);
  if (/^\d+$/.test(start)) return fromAbsolute(Number(start), channelBase);
  return refuse('not-understood', `“${said}” is no address.`);
}

/** Universe and channel in cells of their own. */
export function readApart(
  universe: string,
  channel: string,
  bases: AddressBases,
  records: Pick<ShowRecords, 'universe'>,
): Result<SlotAddress> {
  if (NOTHING.test(universe.trim()) && bases.universeBase === 1) return ok(NO_ADDRESS);
  if (universe.trim() === '' || (NOTHING.test(channel.trim()) && !(channel.trim() === '0' && bases.channelBase === 0)))
    return ok(NO_ADDRESS);
  if (/^\d+\.\d+\.\d+$/.test(universe.trim())) return readAnyAddress(`${universe}/${channel}`, bases, records);
  const number = readUniverse(universe);
  if (number === undefined) return refuse('not-understood', `“${universe.trim()}” is no universe.`);
  const first = /^(\d+)(?:\.0+)?(?:\s*(?:-|–|—|to)\s*\d+)?$/.exec(channel.trim());
  if (!first) {
    // The whole address beside its universe, as some write it.
    const whole = readAnyAddress(channel, bases, records);
    return whole.ok ? whole : refuse('not-understood', `“${channel.trim()}” is no channel.`);
  }
  const base = /^[A-Za-z]$/.test(universe.trim()) ? 1 : bases.universeBase;
  return readAddress(`${number + 1 - base}/${Number(first[1]) + 1 - bases.channelBase}`);
}

/** Several addresses of one lamp: `3/47 + 4/1`. */
export function readAddresses(
  text: string,
  bases: AddressBases,
  records: Pick<ShowRecords, 'universe'>,
): Result<SlotAddress[]> {
  const addresses: SlotAddress[] = [];
  // A comma parts addresses only where each of them is a whole one: “3,47” is one.
  const whole = /^[^,]*\d\s*[/.:]\s*\d+(\s*,\s*[^,]*\d\s*[/.:]\s*\d+)+$/.test(text);
  for (const part of text.trim().split(whole ? /\s*,\s*/ : /\s*[+&]\s*|\s{2,}/)) {
    const address = readAnyAddress(part, bases, records);
    if (!address.ok) return address;
    addresses.push(address.value);
  }
  return ok(addresses);
}
