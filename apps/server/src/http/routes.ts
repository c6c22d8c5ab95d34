/** Routes: switched on and off, given back to their first input, and the faders that drive them learnt. */
import Router from '@koa/router';
import { array, boolean, object, string } from 'yup';
import { fromWireKey } from '@taxiarch/core/address';
import type { LearnReply, RouteReport, RunRoutesRequest } from '@taxiarch/core/contract';
import type { LiveHost } from '../live/host';
import { ProblemError, require400 } from './problem';

const id = string().strict().min(1).max(80).required('Say which route.');

const runSchema = object({
  ids: array().strict().of(id).min(1, 'Say which routes.').max(512).required('Say which routes: “ids” is missing.'),
  on: boolean().strict().required('Say on: true or on: false.'),
  by: string().strict().trim().min(1).max(120).required('Say who does this: “by” is missing.'),
}).noUnknown();

const idSchema = object({ id }).noUnknown();

export function routeRoutes(host: LiveHost): Router {
  const router = new Router({ prefix: '/api/routes' });

  const reply = async (): Promise<readonly RouteReport[]> => (await host.freshReport())?.routes ?? [];

  router.get('/', async (ctx) => {
    ctx.body = await reply();
  });

  router.post('/run', async (ctx) => {
    const { ids, on, by } = require400<RunRoutesRequest>(runSchema, ctx.request.body);
    const refused = await host.ask({ type: 'runRoutes', ids, on, by });
    if (refused) throw new ProblemError(409, 'Not switched', refused);
    ctx.body = await reply();
  });

  router.post('/give-back', async (ctx) => {
    const { id: which } = require400<{ id: string }>(idSchema, ctx.request.body);
    const refused = await host.ask({ type: 'giveBackRoute', id: which });
    if (refused) throw new ProblemError(409, 'Not given back', refused);
    ctx.body = await reply();
  });

  router.post('/learn', async (ctx) => {
    const found = await host.learn();
    if (!found)
      throw new ProblemError(
        409,
        'Nothing moved',
        'No fader moved that had stood still before. Learn again, and move it from bottom to top.',
      );
    ctx.body = { wire: fromWireKey(found.key), channel: found.slot + 1, level: found.level } satisfies LearnReply;
  });
  return router;
}
