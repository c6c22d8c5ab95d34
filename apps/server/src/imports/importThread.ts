/** Entry of the thread that reads a file from outside, so that the server goes on while it is read. */
import { parentPort, workerData } from 'node:worker_threads';
import { readShowFile, type ShowFile } from '@taxiarch/core/format';
import { type MvrContent, readGdtf, readMvr } from '@taxiarch/core/format/archive';
import { type Result, ok } from '@taxiarch/core/result';
import type { FixtureType } from '@taxiarch/core/records';

export const IMPORT_KINDS = ['mvr', 'gdtf', 'show'] as const;
export type ImportKind = (typeof IMPORT_KINDS)[number];

export interface ImportOrder {
  readonly kind: ImportKind;
  readonly bytes: Uint8Array;
}

export type ImportContent =
  | { readonly kind: 'mvr'; readonly content: MvrContent }
  | { readonly kind: 'gdtf'; readonly content: FixtureType }
  | { readonly kind: 'show'; readonly content: ShowFile };

export type FromImport =
  | { readonly type: 'progress'; readonly done: number; readonly of: number }
  | { readonly type: 'refused'; readonly why: string }
  | { readonly type: 'done'; readonly content: ImportContent };

const port = parentPort;

function readFile({ kind, bytes }: ImportOrder): Result<ImportContent> {
  const wrap = (read: Result<unknown>) => (read.ok ? ok({ kind, content: read.value }) : read) as Result<ImportContent>;
  if (kind === 'gdtf') return wrap(readGdtf(bytes));
  if (kind === 'show') return wrap(readShowFile(new TextDecoder().decode(bytes)));
  return wrap(readMvr(bytes, (done, of) => port?.postMessage({ type: 'progress', done, of } satisfies FromImport)));
}

if (port) {
  const read = readFile(workerData as ImportOrder);
  port.postMessage(
    (read.ok ? { type: 'done', content: read.value } : { type: 'refused', why: read.why }) satisfies FromImport,
  );
}
