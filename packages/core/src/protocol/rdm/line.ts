/** Time that RDM takes on a DMX line (ANSI E1.20-2010, 3; ANSI E1.11): what a port cannot send DMX in. */

/** A slot of eleven bits at 250 kbit/s, ms */
const SLOT_MS = 0.044;
/** Break and mark before a request or an answer, ms */
const BREAK_MS = 0.188;
/** From the end of a request to the answer, as lamps take it, ms; at most 2 */
const TURN_MS = 0.5;
/** A controller waits so long for the begin of an answer (3.2.1), ms */
const LOST_MS = 2.8;
/** Header and checksum of a packet, bytes */
const AROUND = 26;

/** Milliseconds of the line for a request and its answer, by their bytes of data; `answered` null if none comes. */
export const exchangeMs = (asked: number, answered: number | null): number =>
  BREAK_MS +
  (AROUND + asked) * SLOT_MS +
  (answered === null ? LOST_MS : TURN_MS + BREAK_MS + (AROUND + answered) * SLOT_MS);

/** A frame of DMX with all its slots, ms */
export const FRAME_MS = BREAK_MS + 513 * SLOT_MS;
