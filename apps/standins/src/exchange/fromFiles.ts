/** The visualiser’s patch as it got it: from the files that the show gives out, and from nothing else. */
import { compareRig, planImport } from '@taxiarch/core/files/arrival';
import { recordsAfter } from '@taxiarch/core/show/edit';
import { readMvr } from '@taxiarch/core/files/format/archive';
import { rigOf } from '@taxiarch/core/rig/patch';
import { emptyShow, type ShowRecords } from '@taxiarch/core/show/records';

/** The rig in an MVR file, with the types that stand in it; throws with a sentence if it cannot be read. */
export function recordsFromFile(mvr: Uint8Array): ShowRecords {
  const content = readMvr(mvr);
  if (!content.ok) throw new Error(content.why);
  const empty = emptyShow();
  const rig = rigOf(empty);
  let made = 0;
  const request = { incoming: content.value, rows: compareRig(rig, content.value), sentence: 'Opened the file' };
  return recordsAfter(empty, planImport(rig, request, () => `made-${(made += 1)}`).changes);
}
