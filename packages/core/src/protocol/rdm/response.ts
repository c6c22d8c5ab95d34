/** What an answer says: done, later, no, or that more follows (ANSI E1.20-2010, 6.3 and 9.3). */
import { readU16 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as R from './constants';
import type { RdmPacket } from './packet';

/** Reasons of a refusal by their number (ANSI E1.20, table A-17), in words for a person. */
const NACK_REASONS: readonly string[] = [
  'it does not know this parameter',
  'it does not understand the request',
  'its hardware failed',
  'what stands in for it refuses',
  'it is locked against writing',
  'this parameter cannot be asked or set so',
  'the value is out of its range',
  'it has no room for the request',
  'it does not take packets of this size',
  'it has no such sub-device',
  'what stands in for it has no room',
];

export const nackText = (reason: number): string => NACK_REASONS[reason] ?? `it refuses for reason ${reason}`;

export type RdmResponse =
  | { readonly kind: 'ack'; readonly data: Uint8Array }
  /** Ask again after so many milliseconds, by QUEUED_MESSAGE */
  | { readonly kind: 'timer'; readonly ms: number }
  | { readonly kind: 'nack'; readonly reason: number }
  /** A part; the same is asked again until an ACK comes, and the parts are joined */
  | { readonly kind: 'overflow'; readonly data: Uint8Array };

const TENTH_MS = 100;

/** The answer in a packet; refused if it is no answer, or one cut short. */
export function readResponse({ commandClass, portOrType, data }: RdmPacket): Result<RdmResponse, 'no-answer' | 'cut'> {
  if (!(commandClass & 1)) return refuse('no-answer', 'It is a request and no answer.');
  switch (portOrType) {
    case R.RESPONSE_TYPE_ACK:
      return ok({ kind: 'ack', data });
    case R.RESPONSE_TYPE_ACK_OVERFLOW:
      return ok({ kind: 'overflow', data });
    case R.RESPONSE_TYPE_ACK_TIMER:
    case R.RESPONSE_TYPE_NACK_REASON: {
      if (data.length < 2) return refuse('cut', 'The answer ends before it says why.');
      const word = readU16(data, 0);
      return ok(
        portOrType === R.RESPONSE_TYPE_ACK_TIMER
          ? { kind: 'timer', ms: word * TENTH_MS }
          : { kind: 'nack', reason: word },
      );
    }
    default:
      return refuse('no-answer', 'It is an answer of a type that RDM does not have.');
  }
}
