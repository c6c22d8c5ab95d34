/** Errors as RFC 9457 problem documents, in sentences fit to be shown. */
import type { Middleware } from 'koa';
import type { Logger } from 'pino';
import { PROBLEMS, problemType, type Problem, type ProblemName } from '@taxiarch/core/whole/contract';
import { Away } from '../bridge/away';
import { ProblemError } from '../problemError';
import { RefusedEdit, StaleEdit } from '../store/store';

const document = (name: ProblemName, detail: string, more: Partial<Problem> = {}): Problem => ({
  type: problemType(name),
  ...PROBLEMS[name],
  detail,
  ...more,
});

/** What an operating system's error means to a person. */
const SYSTEM: Readonly<Record<string, string>> = {
  ENOSPC: 'The disk is full, so nothing was written. Make room on it, then try again.',
  EROFS: 'The data folder cannot be written: its disk is read-only. Nothing was changed.',
  EACCES: 'The data folder cannot be written: the system does not permit it. Nothing was changed.',
  EPERM: 'The data folder cannot be written: the system does not permit it. Nothing was changed.',
  EIO: 'The disk failed while writing. Nothing was confirmed; look at the disk.',
  EMFILE: 'This computer has too many files open just now. Try again in a moment.',
};

function problemOf(error: unknown): Problem | undefined {
  if (error instanceof ProblemError) return document(error.problem, error.message, error.more);
  if (error instanceof Away) return document('not-ready', error.message);
  if (error instanceof StaleEdit)
    return document('stale-edit', error.message, {
      conflicts: error.conflicts.map(({ kind, id, now, by }) => ({
        kind,
        id,
        now,
        by: by && { seq: by.seq, author: by.author, at: by.at, sentence: by.sentence },
      })),
    });
  if (error instanceof RefusedEdit) return document('not-possible', error.message);
  const { status = 500 } = error as { status?: number };
  if (status === 404) return document('not-here', 'There is no such file.');
  if (status >= 400 && status < 500) return document('not-understood', 'The request could not be read.');
  return undefined;
}

/** What to say of an error that nobody foresaw. */
function failure(error: unknown): Problem {
  const { code = '' } = error as NodeJS.ErrnoException;
  const why = SYSTEM[code] ?? `Taxiarch could not do this because of a fault of its own: ${(error as Error).message}`;
  return document('failed', why);
}

/** The reply to a request that failed; what nobody foresaw is logged. */
export function problemReply(error: unknown, log: Logger, path: string): Problem {
  const problem = problemOf(error);
  if (!problem) log.error({ error, path }, 'A request failed.');
  return problem ?? failure(error);
}

export const problems =
  (log: Logger): Middleware =>
  async (ctx, next) => {
    try {
      await next();
      if (ctx.status === 404 && ctx.body === undefined && ctx.path.startsWith('/api/'))
        throw new ProblemError('not-here', `There is nothing at ${ctx.method} ${ctx.path}.`);
    } catch (error) {
      const reply = problemReply(error, log, ctx.path);
      ctx.status = reply.status;
      ctx.type = 'application/problem+json';
      ctx.body = JSON.stringify(reply);
    }
  };
