/** Wire universes as short keys and as words; the numbering base is always said, never guessed. */
import { formatPortAddress, readPortAddress } from './portAddress';
import { type Protocol, readSacnUniverse, type WireUniverse } from './universe';
import { refuse, type Result, ok } from '../result';

/** One number for a wire universe, fit for maps and packets: Art-Net keys have bit 16 set. */
export const wireKey = ({ protocol, number }: WireUniverse): number =>
  protocol === 'artnet' ? 0x10000 | number : number;

export const fromWireKey = (key: number): WireUniverse =>
  key & 0x10000 ? { protocol: 'artnet', number: key & 0x7fff } : { protocol: 'sacn', number: key & 0xffff };

/** The key as it stands in addresses of pages: `sacn-12`, `artnet-18`. */
export const formatWireToken = ({ protocol, number }: WireUniverse): string => `${protocol}-${number}`;

export function readWireToken(token: string): Result<WireUniverse> {
  const match = /^(sacn|artnet)-(.+)$/.exec(token);
  if (!match) return refuse('not-understood', `“${token}” names no universe on the wire.`);
  const protocol = match[1] as Protocol;
  const number = protocol === 'sacn' ? readSacnUniverse(match[2]!) : readPortAddress(match[2]!);
  return number.ok ? ok({ protocol, number: number.value }) : number;
}

export const protocolName = (protocol: Protocol): string => (protocol === 'sacn' ? 'sACN' : 'Art-Net');

/** `sACN 12`, or `Art-Net 0.1.2`. */
export const formatWire = ({ protocol, number }: WireUniverse): string =>
  protocol === 'sacn' ? `sACN ${number}` : `Art-Net ${formatPortAddress(number)}`;

/** As {@link formatWire}, with both countings of an Art-Net universe: `Art-Net 18 (device may show 19), 0.1.2`. */
export const formatWireFully = ({ protocol, number }: WireUniverse): string =>
  protocol === 'sacn'
    ? `sACN ${number}, counted from 1`
    : `Art-Net ${number} counted from 0 (${formatPortAddress(number)}); a device that counts from 1 shows ${number + 1}`;

/** The IPv6 multicast group of an sACN universe (E1.31-2018, 9.3.2). */
export const multicastGroup6 = (universe: number): string => `ff18::8300:${universe.toString(16)}`;

/** The multicast group of an sACN universe (ANSI E1.31-2018, 9.3.1). */
export const multicastGroup = (universe: number): string => `239.255.${universe >> 8}.${universe & 0xff}`;

/**
 * A universe as people type it: `sACN 12`, `Art-Net 18`, `artnet 0.1.2`; or `u3` or `3` for a show
 * universe, of which `planned` says how it travels (undefined if it is not in the show).
 */
export function readWireText(
  text: string,
  planned: (universe: number) => WireUniverse | undefined,
): Result<WireUniverse> {
  const trimmed = text.trim();
  const show = /^u?\s*(\d{1,6})$/i.exec(trimmed);
  if (show) {
    const wire = planned(Number(show[1]));
    return wire
      ? ok(wire)
      : refuse('not-found', `Universe ${show[1]} is not in the show. Write sACN 12 or Art-Net 0.1.2.`);
  }
  const match = /^(sacn|art-?net)[\s-]*(.+)$/i.exec(trimmed);
  if (!match)
    return refuse(
      'not-found',
      `“${trimmed}” names no universe: write 3 for a show universe, sACN 12, or Art-Net 0.1.2.`,
    );
  return readWireToken(`${match[1]!.toLowerCase().replace('-', '')}-${match[2]}`);
}
