/** Packages of the TCP mode of MVR-xchange (DIN SPEC 15801, communication format, TCP mode). */
import { joinBytes, readU32, writeU32 } from '../../base/bytes';
import { ok, refuse, type Result } from '../../base/result';
import * as X from './constants';

/** What came whole: a message's text, or a file. */
export type Arrived =
  { readonly kind: 'json'; readonly text: string } | { readonly kind: 'file'; readonly bytes: Uint8Array };

const PIECE = 1024 * 1024;

function encodePackage(type: number, number: number, count: number, payload: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(X.PACKAGE_HEADER_LENGTH + payload.length);
  [X.MVR_PACKAGE_HEADER, X.MVR_PACKAGE_VERSION, number, count, type, 0, payload.length].forEach((word, i) =>
    writeU32(bytes, i * 4, word),
  );
  bytes.set(payload, X.PACKAGE_HEADER_LENGTH);
  return bytes;
}

export const encodeJson = (text: string): Uint8Array =>
  encodePackage(X.TYPE_JSON, 0, 1, new TextEncoder().encode(text));

/** A file in pieces of at most `piece` bytes, one package each, numbered from 0. */
export function encodeFile(file: Uint8Array, piece = PIECE): Uint8Array[] {
  const count = Math.max(1, Math.ceil(file.length / piece));
  return Array.from({ length: count }, (_, i) =>
    encodePackage(X.TYPE_MVR, i, count, file.subarray(i * piece, (i + 1) * piece)),
  );
}

/**
 * Reads packages from the bytes of a connection, in whatever portions they come. What is too large is refused by its
 * header, before anything of it is kept; after a refusal the connection is of no more use.
 */
export class PackageReader {
  private portions: Uint8Array[] = [];
  private held = 0;
  private pieces: Uint8Array[] = [];
  private type = -1;
  private total = 0;
  private refused: Result<never> | undefined;

  constructor(private readonly mostFile = X.MOST_FILE) {}

  /** Bytes of a file that have come so far; 0 between files. */
  get under(): number {
    return this.type === X.TYPE_MVR || this.total > 0 ? this.total : 0;
  }

  push(bytes: Uint8Array): Result<Arrived[]> {
    if (this.refused) return this.refused;
    this.portions.push(bytes);
    this.held += bytes.length;
    const arrived: Arrived[] = [];
    for (;;) {
      const next = this.next();
      if (next === undefined) return ok(arrived);
      if (!next.ok) return (this.refused = next);
      if (next.value) arrived.push(next.value);
    }
  }

  /** The first `length` bytes held, without taking them away; undefined while there are fewer. */
  private peek(length: number): Uint8Array | undefined {
    if (this.held < length) return undefined;
    if (this.portions[0]!.length < length) this.portions = [joinBytes(this.portions)];
    return this.portions[0]!.subarray(0, length);
  }

  private drop(length: number): void {
    this.held -= length;
    const rest = this.portions[0]!.subarray(length);
    if (rest.length > 0) this.portions[0] = rest;
    else this.portions.shift();
  }

  /** A package taken in: what it made whole, null if more pieces follow; undefined while it is not all there. */
  private next(): Result<Arrived | null> | undefined {
    while (this.portions[0]?.length === 0) this.portions.shift();
    const header = this.peek(X.PACKAGE_HEADER_LENGTH);
    if (!header) return undefined;
    const [magic, version, number, count, type, high, low] = [0, 4, 8, 12, 16, 20, 24].map((at) => readU32(header, at));
    if (magic !== X.MVR_PACKAGE_HEADER) return refuse('not-understood', 'What came is no package of MVR-xchange.');
    if (version !== X.MVR_PACKAGE_VERSION)
      return refuse('not-understood', `What came is a package of version ${version}; version 1 is spoken here.`);
    if (type !== X.TYPE_JSON && type !== X.TYPE_MVR)
      return refuse('not-understood', `What came is a package of type ${type}, which there is not.`);
    if (count! < 1 || count! > X.MOST_PACKAGES || number! > count!)
      return refuse('out-of-range', `What came is piece ${number} of ${count}, which cannot be.`);
    if (this.type !== -1 && type !== this.type)
      return refuse('not-understood', 'A message came between the pieces of a file.');
    const most = type === X.TYPE_JSON ? X.MOST_JSON : this.mostFile;
    if (high! > 0 || this.total + low! > most)
      return refuse(
        'out-of-range',
        `What came is larger than ${Math.round(most / 1024 / 1024)} MiB, and is not read further.`,
      );
    if (this.held < X.PACKAGE_HEADER_LENGTH + low!) return undefined;
    const payload = this.peek(X.PACKAGE_HEADER_LENGTH + low!)!.slice(X.PACKAGE_HEADER_LENGTH);
    this.drop(X.PACKAGE_HEADER_LENGTH + low!);
    this.type = type!;
    this.total += payload.length;
    this.pieces.push(payload);
    if (this.pieces.length < count!) return ok(null);
    const whole = this.pieces.length === 1 ? payload : joinBytes(this.pieces);
    this.pieces = [];
    this.type = -1;
    this.total = 0;
    return ok(
      type === X.TYPE_JSON ? { kind: 'json', text: new TextDecoder().decode(whole) } : { kind: 'file', bytes: whole },
    );
  }
}
