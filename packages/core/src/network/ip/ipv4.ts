/** IPv4 addresses as unsigned 32-bit numbers, and what a mask makes of them. */
import ipaddr from 'ipaddr.js';
import { ok, refuse, type Result } from '../../base/result';

/** `10.0.0.21` as a number; undefined for anything that is not four numbers with dots. */
export function ipNumber(text: string): number | undefined {
  if (!ipaddr.IPv4.isValidFourPartDecimal(text)) return undefined;
  return ipaddr.IPv4.parse(text)
    .toByteArray()
    .reduce((sum, byte) => sum * 256 + byte, 0);
}

export const ipText = (number: number): string =>
  [number >>> 24, (number >>> 16) & 255, (number >>> 8) & 255, number & 255].join('.');

/** The mask of a length in bits, 0–32, as a number. */
export const maskNumber = (prefix: number): number => (prefix === 0 ? 0 : (0xffffffff << (32 - prefix)) >>> 0);
export const maskText = (prefix: number): string => ipText(maskNumber(prefix));

/** The length of a mask written with dots; undefined if its ones do not stand together. */
export function maskLength(mask: string): number | undefined {
  if (!ipaddr.IPv4.isValidFourPartDecimal(mask)) return undefined;
  return ipaddr.IPv4.parse(mask).prefixLengthFromSubnetMask() ?? undefined;
}

export const networkOf = (address: number, prefix: number): number => (address & maskNumber(prefix)) >>> 0;
export const lastOf = (address: number, prefix: number): number => (address | ~maskNumber(prefix)) >>> 0;
export const inNetwork = (address: number, network: number, prefix: number): boolean =>
  networkOf(address, prefix) === networkOf(network, prefix);

export const isLoopback = (address: number): boolean => address >>> 24 === 127;

/** `10.0.0.0/8` read; the address may stand anywhere in its subnet. */
export function readSubnet(text: string): Result<{ address: number; prefix: number }> {
  const [address = '', length = ''] = text.trim().split('/');
  const number = ipNumber(address);
  if (number === undefined)
    return refuse('not-understood', `“${address}” is no address: write four numbers with dots, as in 10.0.0.0.`);
  const prefix = /^\d{1,2}$/.test(length) ? Number(length) : maskLength(length);
  if (prefix === undefined || prefix > 30)
    return refuse('not-understood', 'Write the mask’s length behind a stroke, from 0 to 30, as in 10.0.0.0/8.');
  return ok({ address: number, prefix });
}

/** Thirty-two bits with a gap after each eight. */
export const bitsOf = (number: number): string =>
  (number >>> 0)
    .toString(2)
    .padStart(32, '0')
    .replace(/(.{8})(?!$)/g, '$1 ');

/** First and last address of a subnet that a machine may have. */
export function usable(network: number, prefix: number): { first: number; last: number } {
  return { first: networkOf(network, prefix) + 1, last: lastOf(network, prefix) - 1 };
}
