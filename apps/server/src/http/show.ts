/** The show: reading it, changing it by edits, its history, undo and redo. */
import Router from '@koa/router';
import { object, string } from 'yup';
import { checkProposedEdit, undoState, type Edit } from '@taxiarch/core/show';
import type { HistoryReply, ShowReply } from '@taxiarch/core/contract';
import type { ShowStore } from '../store/store';
import { ProblemError, require400 } from './problem';

const authored = object({
  author: string().strict().trim().min(1).max(120).required('Say who does this: the author is missing.'),
}).noUnknown();

const HISTORY_LENGTH = 30;

const headOf = ({ changes: _, ...head }: Edit): Omit<Edit, 'changes'> => head;

export function showRoutes(store: ShowStore): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/show', (ctx) => {
    ctx.body = { seq: store.lastSeq, records: store.records() } satisfies ShowReply;
  });

  router.post('/edits', async (ctx) => {
    const checked = checkProposedEdit(ctx.request.body);
    if (!checked.ok) throw new ProblemError(400, 'Not understood', checked.faults[0]!.why, { faults: checked.faults });
    ctx.status = 201;
    ctx.body = await store.propose(checked.value);
  });

  router.get('/history', (ctx) => {
    const edits = store.history();
    const { undo, redo } = undoState(edits, String(ctx.query['author'] ?? ''));
    const wanted = Number(ctx.query['newest'] ?? HISTORY_LENGTH);
    if (!Number.isInteger(wanted) || wanted < 1)
      throw new ProblemError(400, 'Not understood', 'Say how many of the newest edits are wanted: a number from 1.');
    ctx.body = {
      edits: edits.slice(-wanted).reverse().map(headOf),
      earlier: Math.max(0, edits.length - wanted),
      undo: undo?.seq ?? null,
      redo: redo?.seq ?? null,
    } satisfies HistoryReply;
  });

  for (const way of ['undo', 'redo'] as const) {
    router.post(`/${way}`, async (ctx) => {
      const { author } = require400<{ author: string }>(authored, ctx.request.body);
      const edit = await store[way](author);
      if (!edit) throw new ProblemError(409, 'Nothing to do', `There is nothing of yours to ${way}.`);
      ctx.status = 201;
      ctx.body = edit;
    });
  }
  return router;
}
