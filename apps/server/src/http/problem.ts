/** Errors as RFC 9457 problem documents, in sentences fit to be shown. */
import type { Middleware } from 'koa';
import { checkWith } from '@taxiarch/core/show';
import type { Problem } from '@taxiarch/core/contract';
import type { AnySchema } from 'yup';
import type { Logger } from 'pino';
import { RefusedEdit, StaleEdit } from '../store/store';

/** Thrown by handlers; becomes the reply. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly more: Partial<Problem> = {},
  ) {
    super(detail);
  }
}

function problemOf(error: unknown): Problem | undefined {
  if (error instanceof ProblemError)
    return { type: 'about:blank', title: error.title, status: error.status, detail: error.message, ...error.more };
  if (error instanceof StaleEdit)
    return {
      type: 'about:blank',
      title: 'Changed in the meantime',
      status: 409,
      detail: error.message,
      conflicts: error.conflicts.map(({ kind, id, now, by }) => ({
        kind,
        id,
        now,
        by: by && { seq: by.seq, author: by.author, at: by.at, sentence: by.sentence },
      })),
    };
  if (error instanceof RefusedEdit)
    return { type: 'about:blank', title: 'Not possible', status: 422, detail: error.message };
  const { status = 500 } = error as { status?: number };
  if (status >= 400 && status < 500)
    return {
      type: 'about:blank',
      title: 'Not understood',
      status,
      detail: 'The request could not be read: it is not well-formed, or too large.',
    };
  return undefined;
}

export const problems =
  (log: Logger): Middleware =>
  async (ctx, next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith('/api/'))
        throw new ProblemError(404, 'Not here', `There is nothing at ${ctx.method} ${ctx.path}.`);
    } catch (error) {
      const problem = problemOf(error);
      if (!problem) log.error({ error, path: ctx.path }, 'A request failed.');
      const reply = problem ?? {
        type: 'about:blank',
        title: 'Taxiarch failed',
        status: 500,
        detail:
          'Taxiarch could not do this because of a fault of its own. Nothing was changed; the server’s log has the details.',
      };
      ctx.status = reply.status;
      ctx.type = 'application/problem+json';
      ctx.body = JSON.stringify(reply);
    }
  };

/** Input as the schema wants it; otherwise a 400 that names every fault. */
export function require400<T>(schema: { validateSync: AnySchema['validateSync'] }, input: unknown): T {
  const checked = checkWith<T>(schema, input);
  if (checked.ok) return checked.value;
  throw new ProblemError(400, 'Not understood', checked.faults[0]!.why, { faults: checked.faults });
}
