/** The embedded database: the rows of a show in and out, and whether they are what they should be. */
import { closeSync, existsSync, fsyncSync, openSync, readFileSync, readdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { asc, getTableColumns, gt, inArray, lte, sql } from 'drizzle-orm';
import { drizzle, type PgliteDatabase } from 'drizzle-orm/pglite';
import { RECORD_VERSION, type Change, type Edit, type StoredEdit } from '@taxiarch/core/show/edit';
import { KINDS, type AnyRecord, type Kind, type ShowRecords } from '@taxiarch/core/show/records';
import { ShowDigest } from './digest';
import { CREATION, TABLES, edit, state } from './tables';

/** Rows in one statement; PostgreSQL takes 65,535 parameters. */
const ROWS_AT_ONCE = 1000;

function* inParts<T>(all: readonly T[]): Generator<T[]> {
  for (let from = 0; from < all.length; from += ROWS_AT_ONCE) yield all.slice(from, from + ROWS_AT_ONCE);
}

type Transaction = Parameters<Parameters<PgliteDatabase['transaction']>[0]>[0];

/** What a database holds, looked at row by row. */
export interface Found {
  /** The last edit in it */
  readonly seq: number;
  readonly records: ShowRecords;
  /** Of its rows as they are */
  readonly digest: string;
  /** Its rows are those that its last edit left. */
  readonly sound: boolean;
}

/** What the database keeps of its files in memory; by itself it would take 128 MB. */
const BUFFERS = '32MB';

let compiled: Promise<WebAssembly.Module> | undefined;
/** The database's program is made ready once, however many are opened: that saves a quarter of each opening. */
const program = (): Promise<WebAssembly.Module> =>
  (compiled ??= WebAssembly.compile(
    readFileSync(
      join(dirname(createRequire(import.meta.url ?? __filename).resolve('@electric-sql/pglite')), 'pglite.wasm'),
    ),
  ));

export class Database {
  private dirty = false;

  private constructor(
    private readonly folder: string,
    private readonly engine: PGlite,
    private readonly db: PgliteDatabase,
  ) {}

  /**
   * Opens the database in `folder`, making it if there is none: from `pattern`, a file with an empty one as
   * {@link PGlite.dumpDataDir} wrote it, which is five times as quick as beginning from nothing.
   */
  static async open(folder: string, pattern?: string): Promise<Database> {
    const fresh = pattern !== undefined && !existsSync(folder) && existsSync(pattern);
    const engine = await PGlite.create(folder, {
      pgliteWasmModule: await program(),
      startParams: [...PGlite.defaultStartParams, '-c', `shared_buffers=${BUFFERS}`],
      ...(fresh && { loadDataDir: new Blob([readFileSync(pattern)]) }),
    });
    try {
      const { rows } = await engine.query<{ there: string | null }>(`SELECT to_regclass('state')::text AS there`);
      const { rows: all } = await engine.query<{ count: number }>(
        `SELECT count(*)::int AS count FROM pg_tables WHERE schemaname = 'public'`,
      );
      // Empty, and not of an earlier version.
      if (rows[0]?.there === null && all[0]?.count === 0) await engine.exec(`${CREATION.join(';')};`);
      return new Database(folder, engine, drizzle(engine));
    } catch (error) {
      await engine.close().catch(() => undefined);
      throw error;
    }
  }

  /** The rows as they are; undefined if they are none of today's version. Rejects where they cannot be read. */
  async look(): Promise<Found | undefined> {
    const { rows } = await this.engine.query<{ there: string | null }>(`SELECT to_regclass('state')::text AS there`);
    if (rows[0]?.there === null) return undefined;
    const [is] = await this.db.select().from(state);
    const lists: Partial<Record<Kind, unknown>> = {};
    for (const kind of KINDS) lists[kind] = await this.db.select().from(TABLES[kind]);
    const records = lists as ShowRecords;
    const digest = ShowDigest.of(records).toString();
    if (!is) return { seq: 0, records, digest, sound: KINDS.every((kind) => records[kind].length === 0) };
    if (is.version !== RECORD_VERSION) return undefined;
    return { seq: is.seq, records, digest, sound: digest === is.digest };
  }

  /** Edits since the last snapshot and after `seq`, as far as they are kept here. */
  async editsAfter(seq: number): Promise<Edit[]> {
    const rows = await this.db.select().from(edit).where(gt(edit.seq, seq)).orderBy(asc(edit.seq));
    return rows.map(editOf);
  }

  /** Edits after `seq` of a database of an earlier version. */
  async oldEditsAfter(seq: number): Promise<StoredEdit[]> {
    const { rows } = await this.engine.query<Parameters<typeof editOf>[0]>(
      'SELECT seq, at::float8 AS at, author, sentence, changes, undoes FROM edit WHERE seq > $1 ORDER BY seq',
      [seq],
    );
    return rows.map(editOf) as unknown as StoredEdit[];
  }

  /** Writes an edit and all its rows, or nothing. */
  async write(made: Edit, digest: string): Promise<void> {
    await this.db.transaction(async (tx) => {
      for (const kind of KINDS)
        await this.writeRows(
          tx,
          kind,
          made.changes.filter((change) => change.kind === kind),
        );
      await tx.insert(edit).values({
        seq: made.seq,
        at: Date.parse(made.at),
        author: made.author,
        sentence: made.sentence,
        changes: made.changes,
        undoes: made.undoes ?? null,
      });
      await this.writeState(tx, made.seq, digest);
    });
    this.dirty = true;
  }

  private async writeState(tx: Transaction, seq: number, digest: string): Promise<void> {
    const row = { id: 1, version: RECORD_VERSION, seq, digest };
    await tx.insert(state).values(row).onConflictDoUpdate({ target: state.id, set: row });
  }

  /** Fills an empty database with a whole show, as edit `seq` left it. */
  async fill(records: ShowRecords, seq: number, digest: string): Promise<void> {
    await this.db.transaction(async (tx) => {
      for (const kind of KINDS)
        for (const rows of inParts<AnyRecord>(records[kind])) await this.putRows(tx, kind, rows);
      await this.writeState(tx, seq, digest);
    });
    this.dirty = true;
  }

  private async writeRows(tx: Transaction, kind: Kind, changes: readonly Change[]): Promise<void> {
    const table = TABLES[kind];
    const gone = changes.filter(({ after }) => after === null).map(({ id }) => id);
    const there = changes.flatMap(({ after }) => (after === null ? [] : [after as AnyRecord]));
    for (const ids of inParts(gone)) await tx.delete(table).where(inArray(table.id, ids));
    for (const rows of inParts(there)) await this.putRows(tx, kind, rows);
  }

  /** Rows in, or in place of those with the same id. They go in as one text: a parameter for each field costs ten times as much. */
  private async putRows(tx: Transaction, kind: Kind, rows: readonly AnyRecord[]): Promise<void> {
    const table = TABLES[kind];
    const columns = Object.entries(getTableColumns(table)).map(([key, { name }]) => [key, name] as const);
    const text = JSON.stringify(
      rows.map((row) =>
        Object.fromEntries(columns.map(([key, name]) => [name, (row as unknown as Record<string, unknown>)[key]])),
      ),
    );
    const set = sql.raw(columns.map(([, name]) => `"${name}" = excluded."${name}"`).join(', '));
    await tx.execute(
      sql`INSERT INTO ${table} SELECT * FROM json_populate_recordset(NULL::${table}, ${text}::json) ON CONFLICT (id) DO UPDATE SET ${set}`,
    );
  }

  /** Edits up to `seq` stand in a snapshot now. */
  async forgetEdits(seq: number): Promise<void> {
    await this.db.delete(edit).where(lte(edit.seq, seq));
  }

  /** Brings what was written to the disk itself; the engine leaves that to the system otherwise. */
  async settle(): Promise<void> {
    if (!this.dirty) return;
    this.dirty = false;
    await this.db.execute(sql`CHECKPOINT`);
    syncFiles(this.folder);
  }

  async close(): Promise<void> {
    await this.settle();
    await this.engine.close();
  }
}

interface EditRow {
  readonly seq: number;
  readonly at: number;
  readonly author: string;
  readonly sentence: string;
  readonly changes: readonly Change[];
  readonly undoes: number | null;
}

const editOf = ({ at, undoes, ...rest }: EditRow): Edit => ({
  ...rest,
  at: new Date(at).toISOString(),
  ...(undoes !== null && { undoes }),
});

function syncFiles(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) syncFiles(path);
    else {
      const file = openSync(path, 'r');
      fsyncSync(file);
      closeSync(file);
    }
  }
}
