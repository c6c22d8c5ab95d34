/** The one door for writes. Every change of the show, from whoever and wherever, goes through here. */
import {
  changesBack,
  findConflicts,
  inverseOf,
  refuseChanges,
  settleChanges,
  undoState,
  type Conflict,
  type Edit,
  type ProposedEdit,
} from '@taxiarch/core/show/edit';
import { rigOf, type Rig } from '@taxiarch/core/rig/patch';
import { KINDS, type ShowRecords } from '@taxiarch/core/show/records';
import type { Logger } from 'pino';
import type { Notices } from '../bridge/notices';
import type { Database } from './database';
import type { Journal } from './journal';
import { openShow } from './opening';

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

/** Edits that may wait for the database */
const MOST_BEHIND = 8;
/** The database is brought to the disk this often, if anything was written. */
const SETTLE_MS = 60_000;

export class ShowStore {
  /** Edits that the journal has and the database is still being given */
  private behind: Promise<void> = Promise.resolve();
  private waiting = 0;
  /** The database failed; the journal goes on alone, and the next start makes it anew. */
  private lame = false;
  private queue: Promise<unknown> = Promise.resolve();
  private listeners: ((edit: Edit) => void)[] = [];
  private held: ShowRecords | undefined;
  private patched: Rig | undefined;
  private readonly settling: NodeJS.Timeout;

  private constructor(
    private readonly database: Database,
    private readonly journal: Journal,
    private readonly notices: Pick<Notices, 'say'>,
  ) {
    this.settling = setInterval(() => void this.inTurn(() => this.settle()).catch(() => undefined), SETTLE_MS);
    this.settling.unref();
  }

  /**
   * Opens the show kept in `folder`; what had to be mended is said in `notices`. `pattern` is a file with an empty
   * database, from which a new one is made quickly.
   */
  static async open(folder: string, notices: Pick<Notices, 'say'>, log: Logger, pattern?: string): Promise<ShowStore> {
    const { database, journal } = await openShow(folder, notices, log, pattern);
    const store = new ShowStore(database, journal, notices);
    if (journal.isLong) await store.fold();
    return store;
  }

  /** Number of the last edit. */
  get lastSeq(): number {
    return this.journal.lastSeq;
  }

  /** The same object until the next edit. */
  records(): ShowRecords {
    this.held ??= this.journal.records();
    return this.held;
  }

  /** The same with its patch, which is made anew only when something of it changed. */
  rig(): Rig {
    const records = this.records();
    const { lamp, type, run, machine } = records;
    const before = this.patched?.records;
    const same =
      before && before.lamp === lamp && before.type === type && before.run === run && before.machine === machine;
    this.patched = same ? { records, patch: this.patched!.patch } : rigOf(records);
    return this.patched;
  }

  /** The newest edits, oldest first; as many as asked for, if there are so many. */
  history(newest: number): readonly Edit[] {
    if (newest <= 0) return [];
    let found: readonly Edit[] = this.journal.tail.slice(-newest);
    for (const older of this.journal.putBy()) {
      if (found.length >= newest) break;
      found = [...older.slice(-(newest - found.length)), ...found];
    }
    return found;
  }

  /** What undo and redo would take back next for one author. */
  undoState(author: string): ReturnType<typeof undoState> {
    let known: readonly Edit[] = [...this.journal.tail];
    const older = this.journal.putBy();
    for (;;) {
      const found = undoState(known, author);
      const from = known[0]?.seq ?? Infinity;
      const reachesBack = known.some(
        ({ author: whose, undoes }) => whose === author && undoes !== undefined && undoes < from,
      );
      if (found.undo && !reachesBack) return found;
      const next = older.next();
      if (next.done) return found;
      known = [...next.value, ...known];
    }
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
    return this.inTurn(() => this.takeBack(this.undoState(author).undo, author, 'Undid'));
  }

  /** Takes back the author's last undo; resolves to null if there is none. */
  redo(author: string): Promise<Edit | null> {
    return this.inTurn(() => this.takeBack(this.undoState(author).redo, author, 'Redid'));
  }

  /** The edit of this number; undefined if there is none. */
  editNumbered(seq: number): Edit | undefined {
    const recent = this.journal.tail.find((edit) => edit.seq === seq);
    if (recent) return recent;
    for (const older of this.journal.putBy()) {
      const found = older.find((edit) => edit.seq === seq);
      if (found) return found;
    }
    return undefined;
  }

  /** The edit that a chain of undo and redo began with. */
  private origin(edit: Edit): Edit {
    const before = edit.undoes === undefined ? undefined : this.editNumbered(edit.undoes);
    return before ? this.origin(before) : edit;
  }

  private async takeBack(edit: Edit | undefined, author: string, verb: string): Promise<Edit | null> {
    if (!edit) return null;
    const sentence = `${verb}: ${this.origin(edit).sentence}`;
    return this.commit({ author, sentence, changes: inverseOf(edit, this.journal.maps) }, edit.seq);
  }

  /** Undoes every edit after one, in one edit; resolves to null if nothing would change. */
  goBack(seq: number, author: string): Promise<Edit | null> {
    return this.inTurn(async () => {
      const target = this.editNumbered(seq);
      const changes = changesBack(this.history(this.lastSeq - seq), this.journal.maps);
      if (!target || changes.length === 0) return null;
      return this.commit({ author, sentence: `Went back to: ${this.origin(target).sentence}`, changes });
    });
  }

  private inTurn<T>(act: () => Promise<T>): Promise<T> {
    const turn = this.queue.then(act, act);
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  private async commit({ author, sentence, changes }: ProposedEdit, undoes?: number): Promise<Edit> {
    const { maps } = this.journal;
    const conflicts = findConflicts(maps, changes);
    if (conflicts.length > 0)
      throw new StaleEdit(conflicts.map((conflict) => ({ ...conflict, by: this.lastEditOf(conflict) })));
    const seq = this.journal.lastSeq + 1;
    const settled = settleChanges(maps, changes, seq);
    const refused = refuseChanges(maps, settled);
    if (refused) throw new RefusedEdit(refused);
    const edit: Edit = {
      seq,
      at: new Date().toISOString(),
      author,
      sentence,
      changes: settled,
      ...(undoes !== undefined && { undoes }),
    };
    // So much behind at most: an edit waits rather than let memory grow.
    if (this.waiting >= MOST_BEHIND) await this.behind;
    const digest = this.journal.digestAfter(edit.changes);
    this.journal.append(edit);
    this.follow(edit, digest);
    this.held = this.after(edit);
    for (const listener of this.listeners) listener(edit);
    if (this.journal.isLong) await this.fold();
    return edit;
  }

  /** Lists of which nothing changed stay the same objects. */
  private after({ changes }: Edit): ShowRecords {
    const now = this.journal.records();
    const { held } = this;
    if (!held) return now;
    const touched = new Set(changes.map(({ kind }) => kind));
    return Object.fromEntries(KINDS.map((kind) => [kind, (touched.has(kind) ? now : held)[kind]])) as never;
  }

  /** The database follows the journal, which has the edit on the disk already. */
  private follow(edit: Edit, digest: string): void {
    if (this.lame) return;
    this.waiting += 1;
    this.behind = this.behind
      // Whoever made the edit is answered first.
      .then(() => new Promise(setImmediate))
      .then(() => (this.lame ? undefined : this.database.write(edit, digest)))
      .catch((error: Error) => {
        this.lame = true;
        this.notices.say(
          'database',
          `The database failed (${error.message}). The journal has everything, and goes on without it.`,
          'Look at the disk of this computer, then start Taxiarch again: the database is made anew from the journal.',
        );
      })
      .finally(() => (this.waiting -= 1));
  }

  private async settle(): Promise<void> {
    await this.behind;
    if (!this.lame) await this.database.settle();
  }

  private async fold(): Promise<void> {
    await this.settle();
    this.journal.fold();
    if (!this.lame) await this.database.forgetEdits(this.journal.lastSeq);
  }

  private lastEditOf({ now }: Conflict): Edit | null {
    return now ? (this.editNumbered(now.rev) ?? null) : null;
  }

  async close(): Promise<void> {
    clearInterval(this.settling);
    await this.queue;
    await this.behind;
    await this.database.close();
    this.journal.close();
  }
}
