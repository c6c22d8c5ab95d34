/** Files in: begin reading, ask how far it is, write the chosen rows, or cancel. */
import Router from '@koa/router';
import { array, object, string } from 'yup';
import { MOST_FILE_BYTES } from '@taxiarch/core/format/archive';
import type { ImportKind } from '../imports/importThread';
import type { Imports } from '../imports/imports';
import type { ShowStore } from '../store/store';
import { ProblemError, require400 } from './problem';

const KINDS: readonly ImportKind[] = ['mvr', 'gdtf', 'show'];

const writing = object({
  author: string().strict().trim().min(1).max(120).required('Say who does this: the author is missing.'),
  keys: array().strict().of(string().strict().required()).max(200_000).required('Say which rows are to be written.'),
}).noUnknown();

/** The whole body, refused as soon as it is longer than any file that is read. */
async function bodyOf(request: NodeJS.ReadableStream): Promise<Uint8Array> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > MOST_FILE_BYTES)
      throw new ProblemError(
        413,
        'Too large',
        `The file is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB, the most that is read.`,
      );
    parts.push(part);
  }
  if (size === 0) throw new ProblemError(400, 'Not understood', 'The file is empty.');
  return Buffer.concat(parts);
}

const GONE = 'This file is not here any more. Bring it in again.';

export function importRoutes(imports: Imports, store: ShowStore): Router {
  const router = new Router({ prefix: '/api/import' });

  router.post('/:kind', async (ctx) => {
    const kind = KINDS.find((one) => one === ctx.params['kind']);
    if (!kind)
      throw new ProblemError(
        404,
        'Not here',
        `Files of kind ${ctx.params['kind']} are not read. Choose mvr, gdtf or show.`,
      );
    const name = String(ctx.query['name'] ?? `a ${kind} file`).slice(0, 120);
    const started = imports.start(kind, name, await bodyOf(ctx.req));
    if (!started.ok) throw new ProblemError(429, 'Busy', started.why);
    ctx.status = 202;
    ctx.body = imports.report(started.value, store.records());
  });

  router.get('/:id', (ctx) => {
    const report = imports.report(ctx.params['id']!, store.records());
    if (!report) throw new ProblemError(404, 'Not here', GONE);
    ctx.body = report;
  });

  router.post('/:id/write', async (ctx) => {
    const { author, keys } = require400<{ author: string; keys: string[] }>(writing, ctx.request.body);
    const id = ctx.params['id']!;
    const plan = imports.plan(id, keys, store.records());
    if (!plan.ok) throw new ProblemError(422, 'Not possible', plan.why);
    const { sentence, changes } = plan.value;
    const { seq } = await store.propose({ author, sentence, changes });
    imports.cancel(id);
    ctx.status = 201;
    ctx.body = { seq, sentence, changes: changes.length };
  });

  router.delete('/:id', (ctx) => {
    if (!imports.cancel(ctx.params['id']!)) throw new ProblemError(404, 'Not here', GONE);
    ctx.status = 204;
  });

  return router;
}
