/** The show: reading it, changing it by edits, its history, undo and redo. */
import Router from '@koa/router';
import { object, string } from 'yup';
import { checkProposedEdit, undoState, type Edit } from '@taxiarch/core/show';
import { badNight, nightFerry } from '@taxiarch/core/demo';
import { planShow } from '@taxiarch/core/format';
import type { FindingsReply, HistoryReply, ShowReply } from '@taxiarch/core/contract';
import type { Findings } from '../findings/findings';
import type { ShowStore } from '../store/store';
import { ProblemError, require400 } from './problem';

const authored = object({
  author: string().strict().trim().min(1).max(120).required('Say who does this: the author is missing.'),
}).noUnknown();

const HISTORY_LENGTH = 30;

const SHIPPED = {
  'night-ferry': { name: 'Night Ferry', make: nightFerry },
  'bad-night': { name: 'Night Ferry, bad night', make: badNight },
} as const;

const shipped = authored.shape({
  show: string()
    .strict()
    .oneOf(Object.keys(SHIPPED), `The shipped shows are: ${Object.keys(SHIPPED).join(', ')}.`)
    .required('Say which show.'),
});

const headOf = ({ changes: _, ...head }: Edit): Omit<Edit, 'changes'> => head;

export function showRoutes(store: ShowStore, findings: Findings): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/show', (ctx) => {
    ctx.body = { seq: store.lastSeq, records: store.records() } satisfies ShowReply;
  });

  router.get('/findings', async (ctx) => {
    const seq = store.lastSeq;
    ctx.body = { seq, findings: await findings.of(seq, store.records()) } satisfies FindingsReply;
  });

  router.post('/edits', async (ctx) => {
    const checked = checkProposedEdit(ctx.request.body);
    if (!checked.ok) throw new ProblemError(400, 'Not understood', checked.faults[0]!.why, { faults: checked.faults });
    ctx.status = 201;
    ctx.body = await store.propose(checked.value);
  });

  /** Puts a show that ships with Taxiarch in place of this one; undo brings this one back. */
  router.post('/show/shipped', async (ctx) => {
    const { author, show } = require400<{ author: string; show: keyof typeof SHIPPED }>(shipped, ctx.request.body);
    const { name, make } = SHIPPED[show];
    const { sentence, changes } = planShow(store.records(), make(), `Opened the shipped show ${name}`);
    if (changes.length === 0) throw new ProblemError(409, 'Nothing to do', `${name} is open already, as it ships.`);
    ctx.status = 201;
    ctx.body = await store.propose({ author, sentence, changes });
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
