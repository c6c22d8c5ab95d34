/** Routes: switched on and off, given back to their first input, and the faders that drive them learnt. */
import { fromWireKey } from '@taxiarch/core/base/address';
import type { EngineHost } from '../bridge/host';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

type RouteHandlers = Pick<Handlers, 'readRoutes' | 'runRoutes' | 'giveBackRoute' | 'learnFader'>;

export const routeHandlers = (host: EngineHost): RouteHandlers => ({
  readRoutes: async () => (await host.freshReport()).routes,

  runRoutes: async ({ body: { ids, on, by } }) => {
    const { output } = host.now();
    const refused = await host.ask({ type: 'runRoutes', ids, on, by });
    if (refused) throw new ProblemError(output.hot ? 'not-here' : 'safe', refused);
    return (await host.freshReport()).routes;
  },

  giveBackRoute: async ({ body: { id } }) => {
    const refused = await host.ask({ type: 'giveBackRoute', id });
    if (refused) throw new ProblemError('not-here', refused);
    return (await host.freshReport()).routes;
  },

  learnFader: async () => {
    const found = await host.learn();
    if (!found)
      throw new ProblemError(
        'nothing-to-do',
        'No fader moved that had stood still before. Learn again, and move it from bottom to top.',
      );
    return { wire: fromWireKey(found.key), channel: found.slot + 1, level: found.level };
  },
});
