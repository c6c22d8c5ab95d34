/** Entry of the thread that reads a file from outside, so that the server goes on while it is read. */
import { parentPort, workerData } from 'node:worker_threads';
import type { ImportKind } from '@taxiarch/core/whole/contract';
import { type ReadShow, readShowFile, type Sheet } from '@taxiarch/core/files/format';
import { type GdtfContent, type MvrContent, readGdtf, readMvr } from '@taxiarch/core/files/format/archive';
import { readSheets } from '@taxiarch/core/files/format/sheets';
import { type Result, ok } from '@taxiarch/core/base/result';

export interface ImportOrder {
  readonly kind: ImportKind;
  readonly bytes: Uint8Array;
}

export type ImportContent =
  | { readonly kind: 'mvr'; readonly content: MvrContent }
  | { readonly kind: 'gdtf'; readonly content: GdtfContent }
  | { readonly kind: 'table'; readonly content: readonly Sheet[] }
  | { readonly kind: 'show'; readonly content: ReadShow };

export type FromImport =
  | { readonly type: 'progress'; readonly done: number; readonly of: number }
  | { readonly type: 'refused'; readonly why: string }
  | { readonly type: 'done'; readonly content: ImportContent };

const port = parentPort;

function readFile({ kind, bytes }: ImportOrder): Result<ImportContent> {
  const wrap = (read: Result<unknown>) => (read.ok ? ok({ kind, content: read.value }) : read) as Result<ImportContent>;
  switch (kind) {
    case 'gdtf':
      return wrap(readGdtf(bytes));
    case 'show':
      return wrap(readShowFile(new TextDecoder().decode(bytes)));
    case 'table':
      return wrap(readSheets(bytes));
    case 'mvr':
      return wrap(readMvr(bytes, (done, of) => port?.postMessage({ type: 'progress', done, of } satisfies FromImport)));
  }
}

if (port) {
  const read = readFile(workerData as ImportOrder);
  port.postMessage(
    (read.ok ? { type: 'done', content: read.value } : { type: 'refused', why: read.why }) satisfies FromImport,
  );
}
