/** The one door for writes. Every change of the show, from whoever and wherever, goes through here. */
import { existsSync, mkdirSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import {
  applyChanges,
  findConflicts,
  inverseOf,
  refuseChanges,
  settleChanges,
  toMaps,
  toRecords,
  undoState,
  type Conflict,
  type Edit,
  type ProposedEdit,
  type ShowMaps,
  type ShowRecords,
} from '@taxiarch/core/show';
import type { Logger } from 'pino';
import { Database } from './database';
import { Journal } from './journal';

/** The edit was made on records that have changed since; `now` shows them, `by` the edits that changed them. */
export class StaleEdit extends Error {
  constructor(readonly conflicts: readonly (Conflict & { readonly by: Edit | null })[]) {
    const names = new Set(conflicts.map(({ by }) => by?.author ?? 'somebody'));
    super(
      `${[...names].join(' and ')} changed this in the meantime. Nothing was written: look at how it is now, then try again.`,
    );
  }
}

/** The edit would leave the show in a state that cannot be; the message says why. */
export class RefusedEdit extends Error {}

export class ShowStore {
  private seq: number;
  private readonly maps: ShowMaps;
  private broken = false;
  private queue: Promise<unknown> = Promise.resolve();
  private listeners: ((edit: Edit) => void)[] = [];

  private constructor(
    private readonly database: Database,
    private readonly journal: Journal,
    records: ShowRecords,
    private readonly edits: Edit[],
  ) {
    this.maps = toMaps(records);
    this.seq = edits[edits.length - 1]?.seq ?? 0;
  }

  /**
   * Opens the show kept in `folder`. Edits that the database lacks are taken from the journal; a
   * database that does not open is set aside and built anew from the journal.
   */
  static async open(folder: string, migrations: string, log: Logger): Promise<ShowStore> {
    mkdirSync(folder, { recursive: true });
    const journal = Journal.open(join(folder, 'journal.jsonl'));
    if (journal.damage) log.warn(journal.damage);
    const place = join(folder, 'database');
    let database: Database;
    let last: number;
    try {
      database = await Database.open(place, migrations);
      last = await database.lastSeq();
    } catch (error) {
      if (!existsSync(place) || journal.edits.length === 0) throw error;
      log.warn({ error }, 'The database did not open; it is set aside and built anew from the journal.');
      renameSync(place, `${place}.damaged-${Date.now()}`);
      database = await Database.open(place, migrations);
      last = 0;
    }
    const behind = journal.edits.filter((edit) => edit.seq > last);
    for (const edit of behind) await database.write(edit, () => undefined);
    if (behind.length > 0) log.info(`${behind.length} edits were taken from the journal into the database.`);
    const history = await database.history();
    const known = journal.edits[journal.edits.length - 1]?.seq ?? 0;
    for (const edit of history) if (edit.seq > known) journal.append(edit);
    return new ShowStore(database, journal, await database.records(), history);
  }

  /** Number of the last edit. */
  get lastSeq(): number {
    return this.seq;
  }

  records(): ShowRecords {
    return toRecords(this.maps);
  }

  /** All edits, oldest first. */
  history(): readonly Edit[] {
    return this.edits;
  }

  onEdit(listener: (edit: Edit) => void): void {
    this.listeners.push(listener);
  }

  /** Carries out an edit; it is safe on the disk when this resolves. Rejects with StaleEdit or RefusedEdit. */
  propose(proposal: ProposedEdit): Promise<Edit> {
    return this.inTurn(() => this.commit(proposal));
  }

  /** Takes back the author's last edit; resolves to null if there is none. */
  undo(author: string): Promise<Edit | null> {
    return this.inTurn(() => this.takeBack(undoState(this.edits, author).undo, author, 'Undid'));
  }

  /** Takes back the author's last undo; resolves to null if there is none. */
  redo(author: string): Promise<Edit | null> {
    return this.inTurn(() => this.takeBack(undoState(this.edits, author).redo, author, 'Redid'));
  }

  /** The edit that a chain of undo and redo began with. */
  private origin(edit: Edit): Edit {
    const before = edit.undoes === undefined ? undefined : this.edits.find(({ seq }) => seq === edit.undoes);
    return before ? this.origin(before) : edit;
  }

  private async takeBack(edit: Edit | undefined, author: string, verb: string): Promise<Edit | null> {
    if (!edit) return null;
    const sentence = `${verb}: ${this.origin(edit).sentence}`;
    return this.commit({ author, sentence, changes: inverseOf(edit, this.maps) }, edit.seq);
  }

  private inTurn<T>(act: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(act, act);
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  private async commit({ author, sentence, changes }: ProposedEdit, undoes?: number): Promise<Edit> {
    const conflicts = findConflicts(this.maps, changes);
    if (conflicts.length > 0)
      throw new StaleEdit(conflicts.map((conflict) => ({ ...conflict, by: this.lastEditOf(conflict) })));
    const seq = this.seq + 1;
    const settled = settleChanges(this.maps, changes, seq);
    const refused = refuseChanges(this.maps, settled);
    if (refused) throw new RefusedEdit(refused);
    const edit: Edit = {
      seq,
      at: new Date().toISOString(),
      author,
      sentence,
      changes: settled,
      ...(undoes !== undefined && { undoes }),
    };
    await this.writeBoth(edit);
    this.seq = seq;
    this.edits.push(edit);
    applyChanges(this.maps, settled);
    for (const listener of this.listeners) listener(edit);
    return edit;
  }

  private async writeBoth(edit: Edit): Promise<void> {
    if (this.broken)
      throw new RefusedEdit('The database failed. Start Taxiarch again: nothing that was confirmed is lost.');
    let lasting = false;
    try {
      await this.database.write(edit, () => {
        this.journal.append(edit);
        lasting = true;
      });
    } catch (error) {
      // The journal has the edit and the database does not: only a new start brings them together.
      this.broken = lasting;
      throw error;
    }
  }

  private lastEditOf({ kind, id }: Conflict): Edit | null {
    return (
      this.edits.findLast((edit) => edit.changes.some((change) => change.kind === kind && change.id === id)) ?? null
    );
  }

  async close(): Promise<void> {
    await this.queue;
    await this.database.close();
    this.journal.close();
  }
}
