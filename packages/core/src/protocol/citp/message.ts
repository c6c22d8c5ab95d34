/** Messages of CITP: its header, peer information (PINF), patch (FPTC), selection (FSEL) and frames (FINF). Little-endian. */
import iconv from 'iconv-lite';
import { printable } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as C from './constants';

/** A lamp as a patch message tells it. */
export interface CitpFixture {
  /** 1–65535 */
  readonly number: number;
  /** From 0 */
  readonly universe: number;
  /** From 0 */
  readonly channel: number;
  readonly channels: number;
  readonly make: string;
  readonly name: string;
}

export type CitpMessage =
  | { readonly kind: 'PNam'; readonly name: string }
  | {
      readonly kind: 'PLoc';
      /** TCP port on which it listens; 0 if it does not */
      readonly port: number;
      readonly type: string;
      readonly name: string;
      readonly state: string;
    }
  | ({ readonly kind: 'Ptch'; readonly last: boolean } & CitpFixture)
  /** Unpatched; empty for all */
  | { readonly kind: 'UPtc'; readonly numbers: readonly number[] }
  /** Send your patch; empty for all of it */
  | { readonly kind: 'SPtc'; readonly numbers: readonly number[] }
  /** Selected: only these (`whole`), or these as well */
  | { readonly kind: 'Sele'; readonly whole: boolean; readonly numbers: readonly number[] }
  /** Not selected any more; empty for all */
  | { readonly kind: 'DeSe'; readonly numbers: readonly number[] }
  /** Tell the frames of these */
  | { readonly kind: 'SFra'; readonly numbers: readonly number[] }
  | {
      readonly kind: 'Fram';
      readonly number: number;
      readonly filters: number;
      readonly gobos: number;
      readonly frames: readonly string[];
    };

const LAYERS: { readonly [K in CitpMessage['kind']]: 'PINF' | 'FPTC' | 'FSEL' | 'FINF' } = {
  PNam: 'PINF',
  PLoc: 'PINF',
  Ptch: 'FPTC',
  UPtc: 'FPTC',
  SPtc: 'FPTC',
  Sele: 'FSEL',
  DeSe: 'FSEL',
  SFra: 'FINF',
  Fram: 'FINF',
};
/** FPTC: the message is one of a row (ContentHint 1), the last of it (2). */
const IN_ROW = 1;
const END_OF_ROW = 2;

const word = (value: number) => [value & 0xff, (value >> 8) & 0xff];
const double = (value: number) => [...word(value), ...word(value >>> 16)];
const cookie = (text: string) => [...text].map((letter) => letter.charCodeAt(0));
const text = (value: string) => [...new TextEncoder().encode(value.replaceAll('\0', '')), 0];
const words = (numbers: readonly number[]) => [...word(numbers.length), ...numbers.flatMap(word)];

function contentOf(message: CitpMessage): number[] {
  switch (message.kind) {
    case 'PNam':
      return text(message.name);
    case 'PLoc':
      return [...word(message.port), ...text(message.type), ...text(message.name), ...text(message.state)];
    case 'Ptch':
      return [
        ...double(message.last ? IN_ROW | END_OF_ROW : IN_ROW),
        ...word(message.number),
        message.universe,
        0,
        ...word(message.channel),
        ...word(message.channels),
        ...text(message.make),
        ...text(message.name),
      ];
    case 'UPtc':
    case 'SPtc':
      return [...double(0), ...words(message.numbers)];
    case 'Sele':
      return [message.whole ? 1 : 0, 0, ...words(message.numbers)];
    case 'DeSe':
    case 'SFra':
      return words(message.numbers);
    case 'Fram':
      return [...word(message.number), message.filters, message.gobos, ...text(message.frames.join('\n'))];
  }
}

export function encodeCitp(message: CitpMessage): Uint8Array {
  const content = contentOf(message);
  return Uint8Array.from([
    ...cookie('CITP'),
    1,
    0,
    ...word(0),
    ...double(C.CONTENT_AT + content.length),
    ...word(1),
    ...word(0),
    ...cookie(LAYERS[message.kind]),
    ...cookie(message.kind),
    ...content,
  ]);
}

/** Reads on from a place; throws where a message ends before what it says. */
class Cursor {
  constructor(
    private readonly bytes: Uint8Array,
    private at: number,
  ) {}

  byte(): number {
    const value = this.bytes[this.at];
    if (value === undefined) throw new RangeError();
    this.at += 1;
    return value;
  }

  word(): number {
    return this.byte() | (this.byte() << 8);
  }

  double(): number {
    return (this.word() | (this.word() << 16)) >>> 0;
  }

  words(): number[] {
    const count = this.word();
    if (this.at + count * 2 > this.bytes.length) throw new RangeError();
    return Array.from({ length: count }, () => this.word());
  }

  /** Up to a NUL, or to the end where a program leaves it out. */
  private raw(): string {
    let end = this.at;
    while (end < this.bytes.length && this.bytes[end] !== 0) end += 1;
    const read = decoded(this.bytes.subarray(this.at, end));
    this.at = end + 1;
    return read;
  }

  text(): string {
    return printable(this.raw(), C.LONGEST_NAME);
  }

  /** Names, each on a line of its own. */
  lines(): string[] {
    return this.raw()
      .split('\n')
      .slice(0, C.MOST_LINES)
      .map((line) => printable(line, C.LONGEST_NAME));
  }
}

/** UTF-8, or what older programs write. */
function decoded(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return iconv.decode(bytes as Buffer, 'windows-1252');
  }
}

const letters = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));

function read(kind: string, at: Cursor): CitpMessage | undefined {
  switch (kind) {
    case 'PNam':
      return { kind, name: at.text() };
    case 'PLoc':
      return { kind, port: at.word(), type: at.text(), name: at.text(), state: at.text() };
    case 'Ptch': {
      const hint = at.double();
      const [number, universe] = [at.word(), at.byte()];
      at.byte();
      const [channel, channels] = [at.word(), at.word()];
      const last = (hint & END_OF_ROW) !== 0 || (hint & IN_ROW) === 0;
      return { kind, last, number, universe, channel, channels, make: at.text(), name: at.text() };
    }
    case 'UPtc':
    case 'SPtc':
      at.double();
      return { kind, numbers: at.words() };
    case 'Sele': {
      const whole = at.byte() !== 0;
      at.byte();
      return { kind, whole, numbers: at.words() };
    }
    case 'DeSe':
    case 'SFra':
      return { kind, numbers: at.words() };
    case 'Fram': {
      const [number, filters, gobos] = [at.word(), at.byte(), at.byte()];
      return { kind, number, filters, gobos, frames: at.lines() };
    }
    default:
      return undefined;
  }
}

/** Length of the message that begins here, bytes; undefined while its header is not all there, refused if it is none. */
export function citpLength(bytes: Uint8Array): Result<number> | undefined {
  if (bytes.length < C.HEADER_LENGTH) return undefined;
  if (letters(bytes, 0) !== 'CITP') return refuse('not-understood', 'What came is no message of CITP.');
  const length = new Cursor(bytes, 8).double();
  if (length < C.HEADER_LENGTH || length > C.MOST_MESSAGE)
    return refuse('out-of-range', `A message of CITP of ${length} bytes is not read.`);
  return ok(length);
}

/** Reads one whole message; null for one of a kind that is not spoken here. */
export function decodeCitp(bytes: Uint8Array): Result<CitpMessage | null> {
  const length = citpLength(bytes);
  if (!length) return refuse('not-understood', 'What came is no message of CITP.');
  if (!length.ok) return length;
  if (length.value > bytes.length) return refuse('not-understood', 'The message ends before its end.');
  if (bytes.length < C.CONTENT_AT) return ok(null);
  const kind = letters(bytes, C.HEADER_LENGTH);
  if (LAYERS[kind as CitpMessage['kind']] !== letters(bytes, 16)) return ok(null);
  try {
    return ok(read(kind, new Cursor(bytes.subarray(0, length.value), C.CONTENT_AT)) ?? null);
  } catch {
    return refuse('not-understood', `The message ${kind} ends before its end.`);
  }
}

/** Reads messages from the bytes of a connection, in whatever portions they come. */
export class CitpReader {
  private held = new Uint8Array(0);
  private refused: Result<never> | undefined;

  push(bytes: Uint8Array): Result<CitpMessage[]> {
    if (this.refused) return this.refused;
    const all = new Uint8Array(this.held.length + bytes.length);
    all.set(this.held);
    all.set(bytes, this.held.length);
    const messages: CitpMessage[] = [];
    let at = 0;
    for (;;) {
      const length = citpLength(all.subarray(at));
      if (length && !length.ok) return (this.refused = length);
      if (!length || at + length.value > all.length) break;
      const message = decodeCitp(all.subarray(at, at + length.value));
      if (!message.ok) return (this.refused = message);
      if (message.value) messages.push(message.value);
      at += length.value;
    }
    this.held = all.slice(at);
    return ok(messages);
  }
}
