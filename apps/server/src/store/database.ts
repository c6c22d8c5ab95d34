/** The embedded database: opening, migrating, and the rows of a show in and out. */
import { PGlite } from '@electric-sql/pglite';
import { asc, eq, max } from 'drizzle-orm';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import type { PgTable, PgColumn } from 'drizzle-orm/pg-core';
import {
  KINDS,
  upgradeEdit,
  type AnyRecord,
  type Change,
  type Edit,
  type Kind,
  type ShowRecords,
} from '@taxiarch/core/show';
import * as schema from './schema';

type RecordTable = PgTable & { id: PgColumn; rev: PgColumn };
const TABLES: Readonly<Record<Kind, RecordTable>> = {
  show: schema.show,
  place: schema.place,
  type: schema.type,
  universe: schema.universe,
  lamp: schema.lamp,
  source: schema.source,
  route: schema.route,
  control: schema.control,
  link: schema.link,
  network: schema.network,
  model: schema.model,
  machine: schema.machine,
  run: schema.run,
  snapshot: schema.snapshot,
};

/** Rows in one statement; PostgreSQL takes 65,535 parameters. */
const ROWS_AT_ONCE = 1000;

type Transaction = Parameters<Parameters<PgliteDatabase['transaction']>[0]>[0];

export class Database {
  private constructor(
    private readonly engine: PGlite,
    private readonly db: PgliteDatabase,
  ) {}

  /** Opens the database in `folder`, making it if there is none, and brings it up to date. */
  static async open(folder: string, migrations: string): Promise<Database> {
    const engine = await PGlite.create(folder);
    try {
      const db = drizzle(engine);
      await migrate(db, { migrationsFolder: migrations });
      return new Database(engine, db);
    } catch (error) {
      await engine.close().catch(() => undefined);
      throw error;
    }
  }

  async close(): Promise<void> {
    await this.engine.close();
  }

  async records(): Promise<ShowRecords> {
    const lists: Partial<Record<Kind, unknown>> = {};
    for (const kind of KINDS) lists[kind] = await this.db.select().from(TABLES[kind]);
    return lists as ShowRecords;
  }

  /** Number of the last edit, 0 if there is none. */
  async lastSeq(): Promise<number> {
    const [found] = await this.db.select({ last: max(schema.edit.seq) }).from(schema.edit);
    return found?.last ?? 0;
  }

  /** The whole history, oldest first. */
  async history(): Promise<Edit[]> {
    const rows = await this.db.select().from(schema.edit).orderBy(asc(schema.edit.seq));
    return rows.map(({ at, undoes, ...rest }) =>
      upgradeEdit({ ...rest, at: new Date(at).toISOString(), ...(undoes !== null && { undoes }) }),
    );
  }

  /**
   * Writes an edit and all its rows, or nothing. `before commit` runs last inside the transaction:
   * if it throws, nothing is written.
   */
  async write(edit: Edit, beforeCommit: () => void): Promise<void> {
    await this.db.transaction(async (tx) => {
      for (const kind of KINDS)
        await this.writeRows(
          tx,
          kind,
          edit.changes.filter((change) => change.kind === kind),
        );
      await tx.insert(schema.edit).values({
        seq: edit.seq,
        at: Date.parse(edit.at),
        author: edit.author,
        sentence: edit.sentence,
        changes: edit.changes,
        undoes: edit.undoes ?? null,
      });
      beforeCommit();
    });
  }

  private async writeRows(tx: Transaction, kind: Kind, changes: readonly Change[]): Promise<void> {
    const table = TABLES[kind];
    const added: AnyRecord[] = [];
    for (const { id, before, after } of changes) {
      if (after === null) await tx.delete(table).where(eq(table.id, id));
      else if (before === null) added.push(after);
      else await tx.update(table).set(after).where(eq(table.id, id));
    }
    for (let from = 0; from < added.length; from += ROWS_AT_ONCE)
      await tx.insert(table).values(added.slice(from, from + ROWS_AT_ONCE));
  }
}
