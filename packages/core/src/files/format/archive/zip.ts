/** Opening and making ZIP archives; what could hurt is refused before anything is unpacked. */
import { unzipSync, zipSync, type Zippable } from 'fflate';
import { ok, refuse, type Result } from '../../../base/result';

const MIB = 1024 * 1024;
export const MOST_FILE_BYTES = 256 * MIB;
const MOST_ENTRIES = 4000;
const MOST_UNPACKED = 512 * MIB;
/** Above this size an entry may not unpack to more than so many times its packed size. */
const RATIO_FROM = MIB;
const MOST_RATIO = 200;

export type Entries = Readonly<Record<string, Uint8Array>>;

/** A name as people mean it: however its letters are composed, without capitals. */
const meant = (name: string): string =>
  name
    .normalize('NFC')
    .toLowerCase()
    .replace(/^\.?\//, '');
const base = (name: string): string => name.slice(name.lastIndexOf('/') + 1);

/**
 * The name under which an archive holds an entry: as it is written, else whatever its capitals and the composition of
 * its letters, else in another folder. Undefined if there is none.
 */
export function entryNamed(entries: Entries, name: string): string | undefined {
  if (Object.hasOwn(entries, name)) return name;
  const wanted = meant(slashed(name));
  const names = Object.keys(entries);
  return names.find((one) => meant(one) === wanted) ?? names.find((one) => base(meant(one)) === base(wanted));
}

class Refused extends Error {}

/** Some programs part folders by the other slash. */
const slashed = (name: string): string => name.replaceAll('\\', '/');

/** A name that leads out of the archive's own folder. */
const escapes = (name: string): boolean =>
  name.startsWith('/') || /^[A-Za-z]:/.test(name) || name.includes('\0') || name.split('/').includes('..');

/** Signatures and flags of the format (APPNOTE 6.3, 4.3.7, 4.3.12, 4.4.4). */
const LOCAL = [0x50, 0x4b, 0x03, 0x04];
const CENTRAL = [0x50, 0x4b, 0x01, 0x02];
const ENCRYPTED = 1;
/** How far into a file its archive is looked for */
const MOST_BEFORE = MIB;

const isAt = (bytes: Uint8Array, at: number, mark: readonly number[]): boolean =>
  mark.every((byte, i) => bytes[at + i] === byte);

/** Why an archive cannot be opened although it is one; undefined for all others. */
function whyClosed(bytes: Uint8Array): string | undefined {
  let first = -1;
  for (let at = 0; at + 10 < Math.min(bytes.length, MOST_BEFORE); at += 1) {
    if (!isAt(bytes, at, LOCAL)) continue;
    first = at;
    break;
  }
  if (first < 0) return undefined;
  if (bytes[first + 6]! & ENCRYPTED) return 'The archive is protected by a password. Pack it again without one.';
  for (let at = bytes.length - 46; at > first; at -= 1)
    if (isAt(bytes, at, CENTRAL) && bytes[at + 8]! & ENCRYPTED)
      return 'The archive is protected by a password. Pack it again without one.';
  return first > 0
    ? `The archive begins only after ${first} bytes of something else. Unpack it and pack it again.`
    : undefined;
}

/** Everything in an archive by name; refuses bombs, escaping names and what is no ZIP archive. */
export function openZip(bytes: Uint8Array): Result<Entries> {
  if (bytes.length > MOST_FILE_BYTES)
    return refuse('out-of-range', `The file is larger than ${MOST_FILE_BYTES / MIB} MB, the most that is read.`);
  const closed = whyClosed(bytes);
  if (closed !== undefined) return refuse('not-understood', closed);
  let count = 0;
  let total = 0;
  try {
    const entries = unzipSync(bytes, {
      filter: ({ name, size, originalSize }) => {
        count += 1;
        total += originalSize;
        if (count > MOST_ENTRIES) throw new Refused(`The archive holds more than ${MOST_ENTRIES} files.`);
        if (total > MOST_UNPACKED)
          throw new Refused(`The archive would unpack to more than ${MOST_UNPACKED / MIB} MB.`);
        if (originalSize > RATIO_FROM && originalSize > size * MOST_RATIO)
          throw new Refused(`“${name.slice(0, 80)}” in the archive unpacks to more than ${MOST_RATIO} times its size.`);
        if (escapes(slashed(name)))
          throw new Refused(`The archive holds a file whose name leads elsewhere: “${name.slice(0, 80)}”.`);
        return !slashed(name).endsWith('/');
      },
    });
    if (count === 0) return refuse('not-understood', 'The archive is empty.');
    return ok(Object.fromEntries(Object.entries(entries).map(([name, content]) => [slashed(name), content])));
  } catch (error) {
    return refuse(
      'not-understood',
      error instanceof Refused ? error.message : 'The file is no ZIP archive, or it is damaged or cut short.',
    );
  }
}

/** A fixed time for all entries, so that the same content makes the same bytes. */
const TIME = '2020-01-01T00:00:00Z';

export function makeZip(entries: Entries): Uint8Array {
  const zippable: Zippable = {};
  for (const [name, bytes] of Object.entries(entries)) zippable[name] = [bytes, { mtime: TIME, level: 6 }];
  return zipSync(zippable);
}
