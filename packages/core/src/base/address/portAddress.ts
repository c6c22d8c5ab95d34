/** The Art-Net Port-Address: 15 bits, net (7) . sub-net (4) . universe (4); Art-Net 4, "Universe addressing". */
import { type NumberingBase, PORT_ADDRESS_LAST } from './universe';
import { ok, refuse, type Result } from '../result';

export interface PortAddressParts {
  /** 0–127 */
  readonly net: number;
  /** 0–15 */
  readonly sub: number;
  /** 0–15 */
  readonly universe: number;
}

export const splitPortAddress = (portAddress: number): PortAddressParts => ({
  net: (portAddress >> 8) & 0x7f,
  sub: (portAddress >> 4) & 0x0f,
  universe: portAddress & 0x0f,
});

export const joinPortAddress = ({ net, sub, universe }: PortAddressParts): number =>
  ((net & 0x7f) << 8) | ((sub & 0x0f) << 4) | (universe & 0x0f);

/** `net.sub.universe`, as in `0.1.2`. */
export function formatPortAddress(portAddress: number): string {
  const { net, sub, universe } = splitPortAddress(portAddress);
  return `${net}.${sub}.${universe}`;
}

/**
 * Reads a Port-Address written as three numbers (`0.1.2`) or as one.
 * `base` says what the writer calls the first one; it holds for the single number only,
 * since the three-part form is always the bits on the wire.
 */
export function readPortAddress(text: string, base: NumberingBase = 0): Result<number> {
  const trimmed = text.trim();
  if (/^\d+\.\d+\.\d+$/.test(trimmed)) {
    const [net, sub, universe] = trimmed.split('.').map(Number) as [number, number, number];
    if (net > 127) return refuse('out-of-range', `Net ${net} is too high: Art-Net nets run from 0 to 127.`);
    if (sub > 15) return refuse('out-of-range', `Sub-net ${sub} is too high: Art-Net sub-nets run from 0 to 15.`);
    if (universe > 15) return refuse('out-of-range', `Universe ${universe} is too high within a sub-net: 0 to 15.`);
    return ok(joinPortAddress({ net, sub, universe }));
  }
  if (!/^\d{1,6}$/.test(trimmed))
    return refuse('not-understood', `“${trimmed}” is not an Art-Net address: write 18 or 0.1.2.`);
  const number = Number(trimmed) - base;
  if (number < 0 || number > PORT_ADDRESS_LAST)
    return refuse(
      'out-of-range',
      `${trimmed} is not an Art-Net universe: counted from ${base} they run to ${PORT_ADDRESS_LAST + base}.`,
    );
  return ok(number);
}
