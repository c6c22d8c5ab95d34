/** Files on their way in: read in a thread, compared with the show, written only when a person says so. */
import { createHash, randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import type { ImportKind, ImportReply } from '@taxiarch/core/whole/contract';
import type { Plan } from '@taxiarch/core/show/edit';
import { nextGround } from '@taxiarch/core/files/format/archive';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import type { ShowRecords } from '@taxiarch/core/show/records';
import type { KeptFiles } from '../store/files';
import type { FromImport, ImportContent, ImportOrder } from './importThread';
import type { Choices, Content } from './look';
import { ReadyFile } from './ready';

/** What is read and not written is forgotten after this long. */
const FORGOTTEN_MS = 30 * 60_000;
const MOST_AT_ONCE = 4;
/** Memory of a reading thread, in MiB; a file that needs more is refused. */
const MOST_MEMORY = 1536;

interface Job {
  readonly id: string;
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly worker: Worker;
  state: 'working' | 'refused' | 'ready';
  done: number;
  of: number;
  why: string;
  content: Content | undefined;
  /** Made when it is first asked for: it begins from what the show knows of earlier versions */
  file: ReadyFile | undefined;
}

export class Imports {
  private readonly jobs = new Map<string, Job>();

  constructor(
    private readonly thread: URL | string,
    private readonly files: KeptFiles,
  ) {}

  /** Begins to read a file; returns the name of the job, or a sentence. */
  start(kind: ImportKind, name: string, bytes: Uint8Array): Result<string> {
    const working = [...this.jobs.values()].filter(({ state }) => state === 'working').length;
    if (working >= MOST_AT_ONCE)
      return refuse('taken', 'Other files are being read just now. Wait for them, or cancel one.');
    const worker = new Worker(this.thread, {
      workerData: { kind, bytes } satisfies ImportOrder,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
    });
    const begun = { state: 'working', done: 0, of: 0, why: '', content: undefined, file: undefined } as const;
    const job: Job = { id: randomUUID(), name, bytes, worker, ...begun };
    this.jobs.set(job.id, job);
    const refused = (why: string) => {
      job.state = 'refused';
      job.why = why;
    };
    worker.on('message', (message: FromImport) => {
      if (message.type === 'progress') {
        job.done = message.done;
        job.of = message.of;
      } else if (message.type === 'refused') refused(message.why);
      else {
        const kept = this.tryKeep(message.content, bytes);
        if (kept.ok) {
          job.content = kept.value;
          job.state = 'ready';
        } else refused(kept.why);
      }
    });
    worker.on('error', () =>
      refused('The file needs more memory or time than there is, or breaks its reader. Nothing was changed.'),
    );
    setTimeout(() => this.cancel(job.id), FORGOTTEN_MS).unref();
    return ok(job.id);
  }

  private tryKeep(content: ImportContent, bytes: Uint8Array): Result<Content> {
    try {
      return this.keep(content, bytes);
    } catch {
      return refuse(
        'nothing',
        'The file could not be kept: the data folder is full or cannot be written. Nothing was changed.',
      );
    }
  }

  /** Keeps the files that came, so that their other parts can go out again. */
  private keep(content: ImportContent, bytes: Uint8Array): Result<Content> {
    switch (content.kind) {
      case 'gdtf': {
        const { type, notes } = content.content;
        return ok({ kind: 'gdtf', type: { ...type, file: this.files.keep(bytes) }, notes });
      }
      case 'mvr': {
        const { typeFiles, ...incoming } = content.content;
        const types = incoming.types.map((type) => {
          const file = typeFiles.get(type.id);
          return file ? { ...type, file: this.files.keep(file) } : type;
        });
        return ok({ kind: 'mvr', incoming: { ...incoming, types } });
      }
      case 'table':
        return ok({ kind: 'table', sheets: content.content });
      case 'show': {
        const { records, files, notes } = content.content;
        for (const [name, text] of Object.entries(files)) {
          const file = Buffer.from(text, 'base64');
          if (createHash('sha256').update(file).digest('hex') !== name)
            return refuse('not-understood', 'A file within the show file is not what its name says.');
          this.files.keep(file);
        }
        return ok({ kind: 'show', records, notes });
      }
    }
  }

  private ready(id: string, records: ShowRecords): { job: Job; file: ReadyFile } | undefined {
    const job = this.jobs.get(id);
    if (!job?.content) return undefined;
    job.file ??= new ReadyFile(job.name, job.content, records);
    return { job, file: job.file };
  }

  /** How far it is; when it is read, how it compares with the show as it is now. */
  report(id: string, records: ShowRecords): ImportReply | undefined {
    const job = this.jobs.get(id);
    if (!job) return undefined;
    const { name, done, of, why } = job;
    if (job.state === 'working') return { id, name, state: 'working', done, of };
    const reply = this.ready(id, records)?.file.reply(records);
    if (!reply) return { id, name, state: 'refused', why };
    return reply.ok ? { id, name, ...reply.value } : { id, name, state: 'refused', why: reply.why };
  }

  /** Says how a file is to be read; false if it is not here. */
  choose(id: string, said: Partial<Choices>, records: ShowRecords): boolean {
    const found = this.ready(id, records);
    found?.file.choose(said);
    return found !== undefined;
  }

  /** What writing the chosen rows would do; `fields` stay as they are in lamps that are there. */
  plan(id: string, keys: readonly string[], fields: readonly string[], records: ShowRecords): Result<Plan> {
    const found = this.ready(id, records);
    if (!found) return refuse('not-found', 'This file is not here any more. Bring it in again.');
    const { job, file } = found;
    const plan = file.plan(
      { keys, fields, at: new Date().toISOString(), file: this.ground(job, file, keys, records) },
      records,
    );
    if (!plan.ok) return plan;
    if (plan.value.changes.length === 0) return refuse('nothing', 'Nothing was chosen that would change the show.');
    const stale = file.staleIn(plan.value, records);
    if (stale.length === 0) return plan;
    const [first] = stale;
    const what = stale.length === 1 ? `${first} was changed` : `${first} and ${stale.length - 1} more were changed`;
    return refuse<string>(
      'stale',
      `${what} since this was compared. Nothing was written. Look at the rows again, then write them.`,
    );
  }

  /** The scene on which the show stands when these rows are taken over: what stood there before is in it too. */
  private ground(job: Job, file: ReadyFile, keys: readonly string[], records: ShowRecords): string | null {
    if (job.content?.kind !== 'mvr') return null;
    const kept = this.files.get(records.show[0]?.file ?? null);
    return this.files.keep(nextGround(kept, job.bytes, new Set(file.taken(keys, records))));
  }

  /** Stops reading and forgets. */
  cancel(id: string): boolean {
    const job = this.jobs.get(id);
    if (!job) return false;
    void job.worker.terminate();
    return this.jobs.delete(id);
  }
}
