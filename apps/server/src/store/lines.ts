/** Lines of a journal: a checksum, then one edit with the version of its records and the digest of the show after it. */
import { crc32 } from 'node:zlib';
import { RECORD_VERSION, type Edit, type StoredEdit } from '@taxiarch/core/show/edit';

export interface Entry {
  readonly edit: StoredEdit;
  /** Of the show after this edit; undefined in lines of earlier versions */
  readonly digest: string | undefined;
}

const checked = (text: string): string => `${crc32(text).toString(16).padStart(8, '0')} ${text}`;

/** Text behind its checksum; undefined if they do not fit together, down to how the checksum is written. */
export function uncheck(line: string): string | undefined {
  const text = line.slice(9);
  return line === checked(text) ? text : undefined;
}

export const withChecksum = (text: string): Buffer => Buffer.from(`${checked(text)}\n`);

export const lineOf = (edit: Edit, digest: string): Buffer =>
  withChecksum(JSON.stringify({ v: RECORD_VERSION, d: digest, ...edit }));

export function entryOf(line: string): Entry | undefined {
  const text = uncheck(line);
  if (text === undefined) return undefined;
  const { d: digest, ...edit } = JSON.parse(text) as StoredEdit & { d?: string };
  return { edit, digest };
}

export interface LinesRead {
  /** Whole edits in a row, from the first */
  readonly entries: readonly Entry[];
  /** Bytes that these take */
  readonly length: number;
  /**
   * What follows them: nothing; an unfinished line, as an interrupted write leaves it, which was never
   * confirmed; or lines that were written whole and are not whole any more.
   */
  readonly end: 'clean' | 'torn' | 'damaged';
  /** Whole edits behind a damaged place, which do not follow on what is before it */
  readonly stranded: readonly Entry[];
}

const isZero = (bytes: Buffer): boolean => bytes.every((byte) => byte === 0);

export function readLines(bytes: Buffer): LinesRead {
  const entries: Entry[] = [];
  let length = 0;
  let at = 0;
  let harmed = false;
  const stranded: Entry[] = [];
  while (at < bytes.length) {
    const end = bytes.indexOf(0x0a, at);
    const line = end < 0 ? undefined : entryOf(bytes.toString('utf8', at, end));
    const last = entries[entries.length - 1];
    const follows = line && (!last || line.edit.seq === last.edit.seq + 1);
    if (follows && !harmed) {
      entries.push(line);
      length = end + 1;
    } else if (line) {
      harmed = true;
      stranded.push(line);
    } else if (end < 0) break;
    else harmed = true;
    at = end + 1;
  }
  const rest = bytes.subarray(length);
  if (rest.length === 0) return { entries, length, end: 'clean', stranded };
  if (harmed) return { entries, length, end: 'damaged', stranded };
  // Without its line end: cut off while it was written, unless only the line end itself is not as it was.
  const whole = entryOf(rest.toString('utf8', 0, rest.length - 1));
  return { entries, length, end: whole && !isZero(rest) ? 'damaged' : 'torn', stranded: whole ? [whole] : [] };
}
