/** The demo's bench of stand-ins, passed on to whoever looks at their page. */
import Router from '@koa/router';
import type { StandIn } from '@taxiarch/core/contract';
import { ProblemError } from './problem';

const LONGEST_MS = 4000;

/** `bench`: address of the stand-ins' bench; undefined when there are none. */
export function standInRoutes(bench: string | undefined): Router {
  const router = new Router({ prefix: '/api/stand-ins' });

  async function ask(path: string, body?: unknown): Promise<readonly StandIn[]> {
    if (bench === undefined) throw new ProblemError(404, 'Not here', 'There are no stand-ins: this is a real network.');
    let response: Response;
    try {
      response = await fetch(`${bench}/${path}`, {
        signal: AbortSignal.timeout(LONGEST_MS),
        ...(body !== undefined && { method: 'POST', body: JSON.stringify(body) }),
      });
    } catch {
      throw new ProblemError(
        503,
        'Not there',
        'The stand-ins do not answer. They were started with the demo show only.',
      );
    }
    const answer: unknown = await response.json();
    if (!response.ok) throw new ProblemError(400, 'Not possible', (answer as { why: string }).why);
    return answer as readonly StandIn[];
  }

  router.get('/', async (ctx) => {
    ctx.body = await ask('boxes');
  });

  router.post('/handle', async (ctx) => {
    ctx.body = await ask('handle', ctx.request.body ?? {});
  });
  return router;
}
