/** Alternate start codes: what packets carry that are no levels (ANSI E1.11, annex D). */
import { printable, readU16 } from '../../base/bytes';

const NAMES: Readonly<Record<number, string>> = {
  0x17: 'text',
  0x55: 'test',
  0x90: 'text in UTF-8',
  0x91: 'a maker’s own',
  0xcc: 'RDM',
  0xcf: 'system information',
  0xdd: 'priority for each slot',
  0xfe: 'RDM discovery',
};

export const hexCode = (code: number): string => `0x${code.toString(16).toUpperCase().padStart(2, '0')}`;

/** `0x17, text`; a code that nobody has registered with us is its number. */
export const startCodeName = (code: number): string =>
  NAMES[code] === undefined ? hexCode(code) : `${hexCode(code)}, ${NAMES[code]}`;

const decoder = new TextDecoder('utf-8');
/** Page, and characters a line, go before the text. */
const TEXT_FROM = 2;
/** A System Information Packet is this long, and says so in its first slot. */
const SIP_LENGTH = 24;

/**
 * What the slots after an alternate start code say in words; empty if they say nothing that can be read.
 * Texts (0x17, 0x90) have a page and a width, then characters up to a NUL. A System Information Packet
 * (0xCF) tells the standard length and how many packets went before it.
 */
export function readStartCode(code: number, slots: Uint8Array): string {
  if (code === 0x17 || code === 0x90) {
    const end = slots.indexOf(0, TEXT_FROM);
    const text = decoder.decode(slots.subarray(TEXT_FROM, end < 0 ? slots.length : end));
    return printable(text) && `Page ${slots[0] ?? 0}: ${printable(text)}`;
  }
  if (code === 0xcf && slots.length >= SIP_LENGTH && slots[0] === SIP_LENGTH)
    return `${readU16(slots, 8)} slots are standard, ${readU16(slots, 10)} packets since the last, sequence ${slots[4]}, made by ${hexCode(readU16(slots, 12))}`;
  if (code === 0x91 && slots.length >= 2) return `maker ${hexCode(readU16(slots, 0))}`;
  return '';
}
