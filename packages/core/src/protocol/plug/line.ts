/** The timing of a DMX512 line (ANSI E1.11-2008, table 6), in microseconds. */

export const BREAK_US = 92;
export const MARK_US = 12;
/** Start bit, eight bits, two stop bits at 250 kbaud */
export const SLOT_US = 44;

/** What a frame takes on the line at least, with its start code. */
export const frameUs = (slots: number): number => BREAK_US + MARK_US + (1 + slots) * SLOT_US;

/** Frames a second that the line can carry at most. */
export const fastestRate = (slots: number): number => 1_000_000 / frameUs(slots);
