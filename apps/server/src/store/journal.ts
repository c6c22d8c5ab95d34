/**
 * The journal: every edit, one line each, on the disk before its reply goes out. The embedded
 * database is quick but does not force its writes; this file is what a power cut cannot take.
 */
import {
  closeSync,
  existsSync,
  fsyncSync,
  ftruncateSync,
  openSync,
  readFileSync,
  writeSync,
  copyFileSync,
} from 'node:fs';
import { dirname } from 'node:path';
import { crc32 } from 'node:zlib';
import { upgradeEdit, type Edit } from '@taxiarch/core/show';

const lineOf = (edit: Edit): Buffer => {
  const text = JSON.stringify(edit);
  return Buffer.from(`${crc32(text).toString(16).padStart(8, '0')} ${text}\n`);
};

function parseLine(line: string): Edit | undefined {
  const text = line.slice(9);
  if (line[8] !== ' ' || parseInt(line.slice(0, 8), 16) !== crc32(text)) return undefined;
  return upgradeEdit(JSON.parse(text) as Edit);
}

/** Makes a file's entry in its folder as lasting as its content. Not every system can, or needs to. */
function syncFolder(path: string): void {
  try {
    const folder = openSync(dirname(path), 'r');
    fsyncSync(folder);
    closeSync(folder);
  } catch {
    // Windows opens no folders; its file system keeps the entry with the file.
  }
}

export class Journal {
  private constructor(
    private readonly file: number,
    private length: number,
    /** Whole edits found when the journal was opened, in order. */
    readonly edits: readonly Edit[],
    /** Sentence about a damaged part that was set aside; empty if there was none. */
    readonly damage: string,
  ) {}

  /** Opens or begins a journal. An unfinished last line, never acknowledged, is cut off. */
  static open(path: string): Journal {
    const existed = existsSync(path);
    const bytes = existed ? readFileSync(path) : Buffer.alloc(0);
    const edits: Edit[] = [];
    let whole = 0;
    while (whole < bytes.length) {
      const end = bytes.indexOf(0x0a, whole);
      const edit = end < 0 ? undefined : parseLine(bytes.toString('utf8', whole, end));
      if (!edit || (edits.length > 0 && edit.seq !== edits[edits.length - 1]!.seq + 1)) break;
      edits.push(edit);
      whole = end + 1;
    }
    const rest = bytes.subarray(whole);
    let damage = '';
    // One torn line is what an interrupted write leaves; whole lines behind it mean damage.
    if (rest.includes(0x0a) && rest.indexOf(0x0a) < rest.length - 1) {
      copyFileSync(path, `${path}.damaged`);
      damage = `The journal is damaged after edit ${edits.length > 0 ? edits[edits.length - 1]!.seq : 0}. A copy was kept as ${path}.damaged.`;
    }
    const file = openSync(path, existed ? 'r+' : 'w+');
    ftruncateSync(file, whole);
    fsyncSync(file);
    if (!existed) syncFolder(path);
    return new Journal(file, whole, edits, damage);
  }

  /** Appends an edit; it is on the disk when this returns. A write that fails leaves the journal as it was. */
  append(edit: Edit): void {
    const line = lineOf(edit);
    try {
      let written = 0;
      while (written < line.length)
        written += writeSync(this.file, line, written, line.length - written, this.length + written);
      fsyncSync(this.file);
    } catch (error) {
      ftruncateSync(this.file, this.length);
      throw error;
    }
    this.length += line.length;
  }

  close(): void {
    closeSync(this.file);
  }
}
