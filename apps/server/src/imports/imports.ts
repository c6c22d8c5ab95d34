/** Files on their way in: read in a thread, compared with the show, written only when a person says so. */
import { createHash, randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import type { ImportReply, ImportRowReply } from '@taxiarch/core/contract';
import { compareRig, type Incoming, planImport, planShow } from '@taxiarch/core/format';
import { changeType, rigOf } from '@taxiarch/core/patch';
import type { Plan } from '@taxiarch/core/edit';
import { ok, refuse, type Result } from '@taxiarch/core/result';
import type { FixtureType, ShowRecords } from '@taxiarch/core/records';
import type { KeptFiles } from '../store/files';
import type { FromImport, ImportContent, ImportKind, ImportOrder } from './importThread';

/** What is read and not written is forgotten after this long. */
const FORGOTTEN_MS = 30 * 60_000;
const MOST_AT_ONCE = 4;
/** Memory of a reading thread, in MiB; a file that needs more is refused. */
const MOST_MEMORY = 1536;

type Ready =
  | { readonly kind: 'rig'; readonly incoming: Incoming }
  | { readonly kind: 'type'; readonly type: FixtureType }
  | { readonly kind: 'show'; readonly records: ShowRecords };

interface Job {
  readonly id: string;
  readonly name: string;
  readonly worker: Worker;
  state: 'working' | 'refused' | 'ready';
  done: number;
  of: number;
  why: string;
  ready: Ready | undefined;
}

const ALL = 'all';

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
    const job: Job = { id: randomUUID(), name, worker, state: 'working', done: 0, of: 0, why: '', ready: undefined };
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
        const ready = this.tryKeep(message.content, bytes);
        if (ready.ok) {
          job.ready = ready.value;
          job.state = 'ready';
        } else refused(ready.why);
      }
    });
    worker.on('error', () =>
      refused('The file needs more memory or time than there is, or breaks its reader. Nothing was changed.'),
    );
    setTimeout(() => this.cancel(job.id), FORGOTTEN_MS).unref();
    return ok(job.id);
  }

  private tryKeep(content: ImportContent, bytes: Uint8Array): Result<Ready> {
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
  private keep(content: ImportContent, bytes: Uint8Array): Result<Ready> {
    if (content.kind === 'gdtf')
      return ok({ kind: 'type', type: { ...content.content, file: this.files.keep(bytes) } });
    if (content.kind === 'mvr') {
      const { typeFiles, ...incoming } = content.content;
      const types = incoming.types.map((type) => {
        const file = typeFiles.get(type.id);
        return file ? { ...type, file: this.files.keep(file) } : type;
      });
      return ok({ kind: 'rig', incoming: { ...incoming, types, file: this.files.keep(bytes) } });
    }
    for (const [name, text] of Object.entries(content.content.files)) {
      const file = Buffer.from(text, 'base64');
      if (createHash('sha256').update(file).digest('hex') !== name)
        return refuse('not-understood', 'A file within the show file is not what its name says.');
      this.files.keep(file);
    }
    return ok({ kind: 'show', records: content.content.records });
  }

  /** How far it is; when it is read, how it compares with the show as it is now. */
  report(id: string, records: ShowRecords): ImportReply | undefined {
    const job = this.jobs.get(id);
    if (!job) return undefined;
    const { name, done, of } = job;
    if (job.state === 'working') return { id, name, state: 'working', done, of };
    if (!job.ready) return { id, name, state: 'refused', why: job.why };
    return { id, name, state: 'ready', ...compare(job.ready, records) };
  }

  /** What writing the chosen rows would do. */
  plan(id: string, keys: readonly string[], records: ShowRecords): Result<Plan> {
    const job = this.jobs.get(id);
    if (!job?.ready) return refuse('not-found', 'This file is not here any more. Bring it in again.');
    const { ready, name } = job;
    const plan = planOf(ready, `Imported ${name}`, new Set(keys), records);
    if (plan.ok && plan.value.changes.length === 0)
      return refuse('nothing', 'Nothing was chosen that would change the show.');
    return plan;
  }

  /** Stops reading and forgets. */
  cancel(id: string): boolean {
    const job = this.jobs.get(id);
    if (!job) return false;
    void job.worker.terminate();
    return this.jobs.delete(id);
  }
}

function compare(ready: Ready, records: ShowRecords): { rows: ImportRowReply[]; notes: readonly string[] } {
  if (ready.kind === 'rig') {
    const rows = compareRig(rigOf(records), ready.incoming).map(({ key, state, subject, says, differs, light }) => ({
      key,
      state,
      subject,
      says,
      differs,
      ...(light && { light }),
    }));
    return { rows, notes: ready.incoming.notes };
  }
  if (ready.kind === 'type') {
    const { maker, name, modes } = ready.type;
    const there = records.type.some((type) => type.maker === maker && type.name === name);
    const says = modes.map((mode) => mode.name);
    return {
      rows: [{ key: ALL, state: there ? 'changed' : 'added', subject: `${maker} ${name}`, says, differs: [] }],
      notes: [],
    };
  }
  const { lines } = planShow(records, ready.records, '');
  const count = (which: (after: string) => boolean) => lines.filter(({ after }) => which(after)).length;
  const says = [
    `${count((after) => after === 'added')} records added`,
    `${count((after) => after === 'changed')} changed`,
    `${count((after) => after === '')} gone`,
  ];
  const name = ready.records.show[0]?.name ?? '';
  return {
    rows: [
      {
        key: ALL,
        state: lines.length === 0 ? 'same' : 'changed',
        subject: `The whole show: ${name}`,
        says,
        differs: [],
      },
    ],
    notes: [],
  };
}

function planOf(ready: Ready, sentence: string, keys: ReadonlySet<string>, records: ShowRecords): Result<Plan> {
  const rig = rigOf(records);
  if (ready.kind === 'rig') {
    const rows = compareRig(rig, ready.incoming).filter(({ key }) => keys.has(key));
    return ok(planImport(rig, ready.incoming, rows, sentence, randomUUID));
  }
  if (!keys.has(ALL)) return ok({ sentence, changes: [], lines: [] });
  if (ready.kind === 'show') return ok(planShow(records, ready.records, sentence));
  const there = records.type.find(({ maker, name }) => maker === ready.type.maker && name === ready.type.name);
  const plan = changeType(rig, there ? { ...ready.type, id: there.id, rev: there.rev } : ready.type, new Map());
  return plan.ok ? ok({ ...plan.value, sentence }) : plan;
}
