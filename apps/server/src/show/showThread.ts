/**
 * Entry of the show's thread: journal, database, checks, imports and exports, and the requests that need them.
 * Whatever takes long here, feed and output go on in theirs.
 */
import { parentPort, workerData } from 'node:worker_threads';
import { destination, pino } from 'pino';
import { ENDPOINTS, isField, type Endpoint, type FeedText } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Edit, ProposedEdit } from '@taxiarch/core/show/edit';
import { programOf } from '@taxiarch/core/rig/picture';
import { findNext } from '@taxiarch/core/proving/walk';
import { emptyShow, KINDS, type ShowRecords } from '@taxiarch/core/show/records';
import { keepBeating } from '../bridge/beat';
import { breakNow } from '../bridge/breaking';
import { goFirst } from '../bridge/goFirst';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';
import { Findings } from '../findings/findings';
import { callOf, type FileAnswer, type Handler, type Handlers } from '../http/api';
import { exportHandlers } from '../http/exports';
import { importHandlers } from '../http/imports';
import { problemReply } from '../http/problem';
import { proofHandlers } from '../http/proofs';
import { showHandlers } from '../http/show';
import { walkHandlers } from '../http/walks';
import { whatIfHandlers } from '../http/whatIf';
import { WhatIfs } from '../whatIf/whatIfs';
import { Imports } from '../imports/imports';
import { Printing } from '../paper/printing';
import { KeptFiles } from '../store/files';
import { ShowStore } from '../store/store';
import type { FromShow, RawCall, RawReply, ShowEndpoint, ShowSetup, ToShow } from '../bridge/showMessages';
import { planAfter, planOf } from '../bridge/plan';

/** An edit of more changes than this is not told to everybody: they read the show anew. */
const MOST_TOLD = 500;

const log = pino({ name: 'taxiarch', level: process.env['TAXIARCH_LOG'] ?? 'warn' }, destination(2));
const port = parentPort!;
const { folder, demo, pattern, importThread, findingsThread, whatIfThread, paperThread, beat } =
  workerData as ShowSetup & ThreadData;
// Nothing here is as urgent as what comes and goes on the wire.
goFirst(5);
keepBeating(beat);

const encoder = new TextEncoder();
const tell = (message: FromShow | ThreadSays, transfer: Uint8Array[] = []): void =>
  port.postMessage(
    message,
    transfer.map(({ buffer }) => buffer as ArrayBuffer),
  );

const notices = {
  say: (id: string, sentence: string, mend = '') => tell({ type: 'notice', id, sentence, mend }),
};

function firstEdit(records: ShowRecords, sentence: string): ProposedEdit {
  const changes = KINDS.flatMap((kind) => records[kind].map((after) => ({ kind, id: after.id, rev: null, after })));
  return { author: 'Taxiarch', sentence, changes };
}

const begun = (): ProposedEdit =>
  demo
    ? firstEdit(nightFerry(), 'Began with the demo show, Night Ferry')
    : firstEdit(
        { ...emptyShow(), show: [{ id: 'show', rev: 0, name: 'New show', about: '', file: null }] },
        'Began a new show',
      );

function tellEdit(store: ShowStore, edit: Edit): void {
  const changed = planAfter(store.records(), edit.changes);
  if (Object.keys(changed).length > 0) tell({ type: 'plan', changed });
  const news: FeedText = edit.changes.length <= MOST_TOLD ? { type: 'edit', edit } : { type: 'reread', seq: edit.seq };
  const text = encoder.encode(JSON.stringify(news));
  tell({ type: 'edit', text }, [text]);
}

async function answer(handle: Handler<Endpoint>, endpoint: Endpoint, call: RawCall): Promise<RawReply> {
  const found: unknown = await handle(callOf(endpoint, call));
  const { status, reply } = endpoint;
  if (reply === null) return { status, type: '', file: '', bytes: new Uint8Array(0) };
  if (isField(reply))
    return { status, type: 'application/json', file: '', bytes: encoder.encode(JSON.stringify(found)) };
  const { name, content, type = reply.file } = found as FileAnswer;
  const bytes = typeof content === 'string' ? encoder.encode(content) : Uint8Array.from(content);
  return { status, type, file: name, bytes };
}

async function main(): Promise<void> {
  const store = await ShowStore.open(folder, notices, log, pattern);
  if (store.lastSeq === 0) await store.propose(begun());
  const files = new KeptFiles(folder);
  const imports = new Imports(new URL(importThread), files);
  const findings = new Findings(new URL(findingsThread), notices);
  const whatIfs = new WhatIfs(new URL(whatIfThread));
  const handlers: Pick<Handlers, ShowEndpoint> = {
    ...showHandlers(store, findings),
    ...importHandlers(imports, store),
    ...exportHandlers(store, files),
    ...walkHandlers(store, files),
    ...whatIfHandlers(store, whatIfs),
    ...proofHandlers(store, files, new Printing(new URL(paperThread)), () => whatIfs.all(store.records())),
  };
  store.onEdit((edit) => tellEdit(store, edit));

  async function carryOut(message: ToShow): Promise<void> {
    switch (message.type) {
      case 'call': {
        const { ask, name, call } = message;
        const handle = handlers[name] as unknown as Handler<Endpoint>;
        const reply = await answer(handle, ENDPOINTS[name] as Endpoint, call).catch((error: unknown) => {
          const problem = problemReply(error, log, name);
          const bytes = encoder.encode(JSON.stringify(problem));
          return { status: problem.status, type: 'application/problem+json', file: '', bytes };
        });
        return tell({ type: 'reply', ask, reply }, [reply.bytes]);
      }
      case 'propose': {
        const refused = await store.propose(message.edit).then(
          () => undefined,
          (error: Error) => error.message,
        );
        return tell({ type: 'proposed', ask: message.ask, refused });
      }
      case 'snapshot': {
        const snapshot = store.records().snapshot.find(({ id }) => id === message.id);
        return tell({ type: 'snapshot', ask: message.ask, snapshot });
      }
      case 'lamps': {
        const { ask, ids, uid } = message;
        const wanted = ids && new Set(ids);
        const records = store.records();
        const lamp = wanted
          ? records.lamp.filter((one) => wanted.has(one.id) || (uid !== '' && one.uid === uid))
          : records.lamp;
        const types = new Set(lamp.map(({ typeId }) => typeId));
        const type = records.type.filter(({ id }) => types.has(id));
        return tell({ type: 'lamps', ask, lamps: { lamp, type, runs: records.run.map(({ number }) => number) } });
      }
      case 'nextOfWalk':
        return tell({ type: 'nextOfWalk', ask: message.ask, found: findNext(store.rig(), message.wish) });
      case 'program': {
        const { records, patch } = store.rig();
        return tell({ type: 'program', ask: message.ask, program: programOf(message.wish, patch, records.universe) });
      }
      case 'break':
        return message.thread === 'show' ? breakNow(message.how) : findings.break(message.how);
      case 'close':
        await findings.stop();
        await store.close();
        port.close();
    }
  }

  tell({ type: 'plan', changed: planOf(store.records()) });
  port.on('message', (message: ToShow) => void carryOut(message));
  tell({ type: 'ready' });
}

main().catch((error: Error) => tell({ type: 'failed', why: error.message }));
