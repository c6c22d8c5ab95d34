/** The journal's file while it is of an earlier version: edits that only the database had are put behind its lines. */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { StoredEdit } from '@taxiarch/core/show/edit';
import { writeWhole } from './disk';
import { readLines, withChecksum } from './lines';

/** Returns how many there were. */
export async function appendOld(folder: string, after: (seq: number) => Promise<StoredEdit[]>): Promise<number> {
  const path = join(folder, 'journal.jsonl');
  const bytes = existsSync(path) ? readFileSync(path) : Buffer.alloc(0);
  const { entries, length } = readLines(bytes);
  const edits = await after(entries[entries.length - 1]?.edit.seq ?? 0);
  if (edits.length === 0) return 0;
  writeWhole(
    path,
    Buffer.concat([bytes.subarray(0, length), ...edits.map((edit) => withChecksum(JSON.stringify(edit)))]),
  );
  return edits.length;
}
