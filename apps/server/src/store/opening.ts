/** Opening a show: journal and database brought together, whichever of them is behind or harmed. */
import { existsSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import { applyChanges, toMaps, toRecords, type Change, type Edit } from '@taxiarch/core/show/edit';
import { KINDS, type AnyRecord, type ShowRecords } from '@taxiarch/core/show/records';
import type { Logger } from 'pino';
import type { Notices } from '../bridge/notices';
import { Database, type Found } from './database';
import { ShowDigest } from './digest';
import { appendOld } from './journalFile';
import { Journal } from './journal';

export interface Opened {
  readonly journal: Journal;
  readonly database: Database;
}

const AUTHOR = 'Taxiarch';

export async function openShow(
  folder: string,
  notices: Pick<Notices, 'say'>,
  log: Logger,
  pattern?: string,
): Promise<Opened> {
  const place = join(folder, 'database');
  const there = existsSync(place);
  let database = await Database.open(place, pattern).catch((error: unknown) => {
    if (!there) throw error;
    log.warn({ error }, 'The database did not open.');
    return undefined;
  });
  let found = await database?.look().catch((error: unknown) => {
    log.warn({ error }, 'The database could not be read.');
    return undefined;
  });
  if (database && !found && there) await takeOldEdits(folder, database, log);
  const journal = Journal.open(folder);
  if (journal.note !== '') notices.say('snapshot', journal.note);
  if (journal.damage) await mendJournal(journal, database, found, notices);
  else if (found?.sound && found.seq > journal.lastSeq) await takeLater(journal, database!, found);
  const agrees = found?.sound && found.seq <= journal.lastSeq && found.digest === journal.digestAt(found.seq);
  const known = new Set(journal.tail.map(({ seq }) => seq));
  if (database && agrees && (found!.seq === journal.lastSeq || known.has(found!.seq + 1))) {
    for (const edit of journal.tail.filter(({ seq }) => seq > found!.seq))
      await database.write(edit, journal.digestAt(edit.seq)!);
    return { journal, database };
  }
  const empty = found !== undefined && found.seq === 0 && found.sound;
  if (!empty) {
    await database?.close().catch(() => undefined);
    const aside = `${place}.set-aside-${Date.now()}`;
    renameSync(place, aside);
    // One of an earlier version is no fault: it was read, and its place is taken.
    if (found || !database)
      notices.say(
        'database',
        'The database did not hold what the journal says. It was made anew from the journal; nothing that was confirmed is lost.',
        `Look at the disk of this computer. The old one was kept as ${aside}.`,
      );
    database = await Database.open(place, pattern);
    found = undefined;
  }
  if (journal.lastSeq > 0) await database!.fill(journal.records(), journal.lastSeq, journal.digest);
  return { journal, database: database! };
}

/** A database of an earlier version may hold edits that its journal had not been given yet. */
async function takeOldEdits(folder: string, database: Database, log: Logger): Promise<void> {
  const taken = await appendOld(folder, (seq) => database.oldEditsAfter(seq)).catch((error: unknown) => {
    log.warn({ error }, 'The database of an earlier version could not be read.');
    return 0;
  });
  if (taken > 0) log.info(`${taken} edits were taken from the database of an earlier version.`);
}

/** Edits that the database has and the journal lacks, if they lead from one to the other. */
async function takeLater(journal: Journal, database: Database, found: Found): Promise<boolean> {
  const edits = await database.editsAfter(journal.lastSeq);
  const maps = toMaps(journal.records());
  let seq = journal.lastSeq;
  for (const edit of edits) {
    if (edit.seq !== seq + 1) return false;
    applyChanges(maps, edit.changes);
    seq = edit.seq;
  }
  if (seq !== found.seq || ShowDigest.of(toRecords(maps)).toString() !== found.digest) return false;
  for (const edit of edits) journal.append(edit);
  return true;
}

/**
 * A line of the journal was harmed after it had been written. The database has the same edits; where it
 * has only what they came to, that is written as one edit; and what is held by nobody now is said.
 */
async function mendJournal(
  journal: Journal,
  database: Database | undefined,
  found: Found | undefined,
  notices: Pick<Notices, 'say'>,
): Promise<void> {
  const { after, kept, stranded } = journal.damage!;
  const mend = `Look at the disk of this computer. The journal as it was found was kept as ${kept}.`;
  const say = (sentence: string) =>
    notices.say('journal', `The journal was damaged after edit ${after}. ${sentence}`, mend);
  if (database && found?.sound && found.seq > after) {
    if (await takeLater(journal, database, found)) return say('Its edits were had from the database; nothing is lost.');
    journal.append(recovered(journal.records(), found.records, found.seq));
    return say('What its edits came to was had from the database: the show is whole, their history is not.');
  }
  const last = stranded[stranded.length - 1]?.seq;
  say(
    last === undefined
      ? 'The edits behind it could not be had from anywhere.'
      : `Edits up to ${last} are not in the show any more, and could not be had from anywhere else.`,
  );
}

/** One edit that leads from a show to another. */
function recovered(from: ShowRecords, to: ShowRecords, seq: number): Edit {
  const changes = KINDS.flatMap((kind): Change[] => {
    const before = new Map<string, AnyRecord>(from[kind].map((one) => [one.id, one]));
    const after = new Map<string, AnyRecord>(to[kind].map((one) => [one.id, one]));
    return [...new Set([...before.keys(), ...after.keys()])].flatMap((id) => {
      const [was, is] = [before.get(id) ?? null, after.get(id) ?? null];
      return JSON.stringify(was) === JSON.stringify(is) ? [] : [{ kind, id, before: was, after: is }];
    });
  });
  return { seq, at: new Date().toISOString(), author: AUTHOR, sentence: 'Recovered from the database', changes };
}
