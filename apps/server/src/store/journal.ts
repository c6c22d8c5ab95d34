/**
 * The journal: every edit, one line each, on the disk before its reply goes out. It is the truth of the
 * show: the embedded database is quick but does not force its writes. From time to time what the edits
 * came to is kept as a snapshot, and their lines are put by; so beginning stays quick however long the
 * history grows.
 */
import {
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  ftruncateSync,
  mkdirSync,
  openSync,
  readFileSync,
  readdirSync,
  renameSync,
  unlinkSync,
} from 'node:fs';
import { basename, join } from 'node:path';
import {
  HistoryUpgrade,
  RECORD_VERSION,
  applyChanges,
  toMaps,
  toRecords,
  type Edit,
  type ShowMaps,
} from '@taxiarch/core/show/edit';
import { emptyShow, type ShowRecords } from '@taxiarch/core/show/records';
import { ShowDigest } from './digest';
import { syncFolder, writeAll, writeWhole } from './disk';
import { lineOf, readLines, uncheck, withChecksum, type Entry, type LinesRead } from './lines';

/** Edits, and bytes of their lines, after which they are folded into a snapshot. */
const FOLD_EDITS = 1000;
const FOLD_BYTES = 8 * 1024 * 1024;
/** Snapshots that are kept, the newest of them */
const SNAPSHOTS = 2;

interface Snapshot {
  readonly seq: number;
  readonly records: ShowRecords;
}

const padded = (seq: number): string => String(seq).padStart(9, '0');

function readSnapshot(path: string): Snapshot | undefined {
  try {
    const text = uncheck(readFileSync(path, 'utf8').trimEnd());
    if (text === undefined) return undefined;
    const { v, seq, records } = JSON.parse(text) as Snapshot & { v: number };
    return v === RECORD_VERSION ? { seq, records } : undefined;
  } catch {
    return undefined;
  }
}

/** A damaged place of the journal, as it was found. */
export interface Damage {
  /** The last edit before it */
  readonly after: number;
  /** A copy of the journal as it was found */
  readonly kept: string;
  /** Edits behind it that are whole */
  readonly stranded: readonly Edit[];
}

export class Journal {
  private readonly path: string;
  private file: number;
  private length: number;
  /** Edits since the last snapshot, oldest first */
  readonly tail: Edit[];
  /** The show after the last edit that could be read */
  readonly maps: ShowMaps;
  private digestNow: ShowDigest;
  /** Digest after each edit of the tail that tells one, by its number */
  private readonly digests = new Map<number, string>();
  private last: number;

  private constructor(
    private readonly folder: string,
    readonly damage: Damage | undefined,
    /** A sentence on what had to be mended while opening; empty if nothing had */
    readonly note: string,
    { snapshot, read }: { snapshot: Snapshot; read: LinesRead },
  ) {
    this.path = join(folder, 'journal.jsonl');
    this.tail = read.entries.map(({ edit }) => edit as Edit).filter(({ seq }) => seq > snapshot.seq);
    this.maps = toMaps(snapshot.records);
    this.digests.set(snapshot.seq, ShowDigest.of(snapshot.records).toString());
    for (const edit of this.tail) applyChanges(this.maps, edit.changes);
    for (const { edit, digest } of read.entries) if (digest !== undefined) this.digests.set(edit.seq, digest);
    this.last = this.tail[this.tail.length - 1]?.seq ?? snapshot.seq;
    this.digestNow = ShowDigest.of(toRecords(this.maps));
    const existed = existsSync(this.path);
    this.file = openSync(this.path, existed ? 'r+' : 'w+');
    ftruncateSync(this.file, read.length);
    fsyncSync(this.file);
    this.length = read.length;
    if (!existed) syncFolder(this.path);
  }

  /** Opens or begins the journal of a data folder; one of an earlier version is brought up, and kept as it was. */
  static open(folder: string): Journal {
    mkdirSync(join(folder, 'snapshots'), { recursive: true });
    mkdirSync(join(folder, 'history'), { recursive: true });
    const path = join(folder, 'journal.jsonl');
    bringUp(path);
    const bytes = existsSync(path) ? readFileSync(path) : Buffer.alloc(0);
    const read = readLines(bytes);
    const { snapshot, note } = startOf(folder, read);
    let damage: Damage | undefined;
    if (read.end === 'damaged') {
      const kept = `${path}.damaged-${Date.now()}`;
      copyFileSync(path, kept);
      const after = read.entries[read.entries.length - 1]?.edit.seq ?? snapshot.seq;
      damage = { after, kept, stranded: read.stranded.map(({ edit }) => edit as Edit) };
    }
    return new Journal(folder, damage, note, { snapshot, read });
  }

  get lastSeq(): number {
    return this.last;
  }

  /** Of the show as it is now */
  get digest(): string {
    return this.digestNow.toString();
  }

  /** Of the show as edit `seq` left it, if that is known. */
  digestAt(seq: number): string | undefined {
    return seq === this.last ? this.digest : this.digests.get(seq);
  }

  private next: { readonly changes: Edit['changes']; readonly digest: ShowDigest } | undefined;

  /** The digest of the show once these changes are made. */
  digestAfter(changes: Edit['changes']): string {
    this.next = { changes, digest: this.digestNow.after(changes) };
    return this.next.digest.toString();
  }

  records(): ShowRecords {
    return toRecords(this.maps);
  }

  /** Appends an edit; it is on the disk when this returns. A write that fails leaves the journal as it was. */
  append(edit: Edit): void {
    // Most edits were asked about just before.
    const digest = this.next?.changes === edit.changes ? this.next.digest : this.digestNow.after(edit.changes);
    this.next = undefined;
    const line = lineOf(edit, digest.toString());
    try {
      writeAll(this.file, line, this.length);
    } catch (error) {
      ftruncateSync(this.file, this.length);
      throw error;
    }
    this.length += line.length;
    this.last = edit.seq;
    this.tail.push(edit);
    applyChanges(this.maps, edit.changes);
    this.digestNow = digest;
    this.digests.set(edit.seq, digest.toString());
  }

  get isLong(): boolean {
    return this.tail.length >= FOLD_EDITS || this.length >= FOLD_BYTES;
  }

  /** Keeps what the edits came to, and puts their lines by. Killed at any point, the next start finds all of it. */
  fold(): void {
    if (this.tail.length === 0) return;
    const [first] = this.tail;
    const text = JSON.stringify({ v: RECORD_VERSION, seq: this.last, records: this.records() });
    writeWhole(join(this.folder, 'snapshots', `${padded(this.last)}.json`), withChecksum(text));
    closeSync(this.file);
    renameSync(this.path, join(this.folder, 'history', `${padded(first!.seq)}-${padded(this.last)}.jsonl`));
    this.file = openSync(this.path, 'w+');
    fsyncSync(this.file);
    syncFolder(this.path);
    this.length = 0;
    this.tail.length = 0;
    this.digests.clear();
    this.digests.set(this.last, this.digest);
    for (const old of snapshotsIn(this.folder).slice(SNAPSHOTS)) unlinkSync(old);
  }

  /** Edits before the tail, put by in files: those of the newest file first. */
  *putBy(): Generator<readonly Edit[]> {
    for (const path of historyIn(this.folder)) yield readPutBy(path);
  }

  close(): void {
    closeSync(this.file);
  }
}

const pathsIn = (folder: string): string[] =>
  readdirSync(folder)
    .filter((name) => /^\d[\d-]*\.jsonl?$/.test(name))
    .sort()
    .reverse()
    .map((name) => join(folder, name));

/** Newest first. */
const snapshotsIn = (folder: string): string[] => pathsIn(join(folder, 'snapshots'));
const historyIn = (folder: string): string[] => pathsIn(join(folder, 'history'));

const readPutBy = (path: string): Edit[] => readLines(readFileSync(path)).entries.map(({ edit }) => edit as Edit);

/**
 * The newest snapshot on which the open lines follow. A damaged one is passed over: the edits put by
 * since the one before it come to the same.
 */
function startOf(folder: string, read: LinesRead): { snapshot: Snapshot; note: string } {
  const first = read.entries[0]?.edit.seq;
  const paths = snapshotsIn(folder);
  const found = paths.map(readSnapshot).find((one) => one && (first === undefined || first <= one.seq + 1));
  const start = found ?? { seq: 0, records: emptyShow() };
  const needed = first === undefined ? newestSeq(folder) : first - 1;
  if (start.seq >= needed) return { snapshot: start, note: '' };
  const maps = toMaps(start.records);
  let seq = start.seq;
  for (const path of historyIn(folder).reverse())
    for (const edit of readPutBy(path))
      if (edit.seq === seq + 1) {
        applyChanges(maps, edit.changes);
        seq = edit.seq;
      }
  return {
    snapshot: { seq, records: toRecords(maps) },
    note: `A snapshot of the show was damaged; the show was made anew from its edits ${start.seq + 1} to ${seq}.`,
  };
}

/** Number of the last edit that was put by. */
const newestSeq = (folder: string): number =>
  Math.max(
    0,
    ...historyIn(folder).map((path) => Number(basename(path, '.jsonl').split('-')[1])),
    ...snapshotsIn(folder).map((path) => Number(basename(path, '.json'))),
  );

/** Lines of earlier versions are written anew as they are today; the file as it was stays beside. */
function bringUp(path: string): void {
  if (!existsSync(path)) return;
  const { entries, end } = readLines(readFileSync(path));
  if (entries.every(({ edit }) => edit.v === RECORD_VERSION)) return;
  copyFileSync(path, `${path}.before-version-${RECORD_VERSION}`);
  if (end === 'damaged') copyFileSync(path, `${path}.damaged-${Date.now()}`);
  writeWhole(path, Buffer.concat(upgradedLines(entries)));
}

export function upgradedLines(entries: readonly Entry[]): Buffer[] {
  const upgrade = new HistoryUpgrade();
  let digest = new ShowDigest();
  return entries.map(({ edit }) => {
    const now = upgrade.next(edit);
    digest = digest.after(now.changes);
    return lineOf(now, digest.toString());
  });
}
