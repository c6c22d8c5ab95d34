/** The HTTP side put together: guard, pairing, API, and the client's files. */
import { join } from 'node:path';
import Koa from 'koa';
import compress from 'koa-compress';
import serve from 'koa-static';
import type { Logger } from 'pino';
import { openApi } from '@taxiarch/core/whole/contract';
import type { EngineHost } from '../bridge/host';
import type { Notices } from '../bridge/notices';
import type { Feed } from '../feed/feed';
import type { SettingsFile } from '../settings';
import type { ShowDoor } from '../bridge/showDoor';
import { apiRouter, type FrontHandlers } from './api';
import { contentPolicy } from './contentPolicy';
import type { Guard } from './guard';
import { liveHandlers } from './live';
import { nodeHandlers } from './nodes';
import { outputHandlers } from './output';
import { pairing } from './pairing';
import { ProblemError } from '../problemError';
import { problems } from './problem';
import { routeHandlers } from './routes';
import { callShow } from './shipped';
import { exchangeHandlers } from './exchange';
import { eyeHandlers } from './eye';
import { pictureHandlers } from './pictures';
import { rollHandlers } from './roll';
import { standInHandlers } from './standIns';
import type { Exchange } from '../exchange/exchange';
import type { Plugs } from '../plug/plugs';
import { plugHandlers } from './plugs';
import type { Bench } from '../practise/bench';
import type { Practising } from '../practise/practising';
import type { Matching } from '../eye/matching';
import type { WalkDesk } from '../walk/walkDesk';
import type { Identifying } from '../roll/identifying';
import type { RollCall } from '../roll/rollCall';
import type { LampSetter } from '../roll/setter';

export interface Parts {
  readonly show: ShowDoor;
  readonly host: EngineHost;
  readonly feed: Feed;
  readonly settings: SettingsFile;
  readonly notices: Notices;
  readonly guard: Guard;
  readonly log: Logger;
  /** Folder of the built client; without it only the API is served. */
  readonly client: string | undefined;
  readonly bench: Bench;
  readonly practising: Practising;
  readonly roll: RollCall;
  readonly setter: LampSetter;
  readonly identifying: Identifying;
  readonly matching: Matching;
  readonly desk: WalkDesk;
  readonly exchange: Exchange;
  readonly plugs: Plugs;
}

const LEFT: ReadonlySet<string> = new Set(['EPIPE', 'ECONNRESET', 'ERR_STREAM_PREMATURE_CLOSE']);
const YEAR_MS = 365 * 24 * 3600 * 1000;

export function createApp({ show, host, feed, settings, notices, ...rest }: Parts): Koa {
  const { guard, log, client, bench, practising, roll, setter, identifying, matching, desk, exchange, plugs } = rest;
  const app = new Koa();
  const policy = contentPolicy(client);
  // Whoever asked has gone while the answer was on its way: that is no fault.
  app.on('error', (error: NodeJS.ErrnoException) => {
    if (!LEFT.has(error.code ?? '')) log.error({ error }, 'An answer failed.');
  });
  app.use(problems(log));
  app.use(async (ctx, next) => {
    const refused = guard.refuse(ctx.req);
    if (refused) throw new ProblemError('other-origin', refused);
    ctx.set({
      'Content-Security-Policy': policy,
      'Cross-Origin-Opener-Policy': 'same-origin',
      'Cross-Origin-Resource-Policy': 'same-origin',
      'X-Content-Type-Options': 'nosniff',
      'X-Frame-Options': 'DENY',
      'Referrer-Policy': 'no-referrer',
    });
    await next();
  });
  // Quick rather than small: who is near waits less, and the other threads have the processor.
  app.use(compress({ threshold: 1024, br: false, gzip: { level: 1 } }));
  app.use(pairing(guard));
  const handlers: FrontHandlers = {
    ...liveHandlers(host, show, settings, notices, practising, exchange),
    ...exchangeHandlers(exchange),
    ...plugHandlers(plugs, show, bench),
    ...outputHandlers(host, show, feed, plugs),
    ...routeHandlers(host),
    ...nodeHandlers(host, show, practising),
    ...standInHandlers(bench, practising),
    ...rollHandlers(host, roll, setter, identifying, feed),
    ...eyeHandlers(matching),
    ...pictureHandlers(host, show, feed),
    stepWalk: ({ params: { walk }, body }) => desk.step(walk, body),
    leaveWalk: ({ params: { walk }, body: { walker } }) => desk.leave(walk, walker),
    readOpenApi: () => openApi,
  };
  app.use(apiRouter(handlers, (name, call) => callShow(show, bench, notices, name, call)).routes());
  if (client !== undefined) {
    app.use(async (ctx, next) => {
      // Every page is the one page; which it is, the client's router reads from the address. A machine's
      // page ends with numbers and dots, a file with letters.
      const isFile = /\.[a-z][a-z0-9]*$/i.test(ctx.path);
      if (ctx.method === 'GET' && !ctx.path.startsWith('/api/') && !isFile) ctx.path = '/index.html';
      await next();
    });
    app.use(
      serve(client, {
        setHeaders: (res, path) => {
          const named = path.startsWith(join(client, 'parts')) || path.startsWith(join(client, 'fonts'));
          res.setHeader('Cache-Control', named ? `public, max-age=${YEAR_MS / 1000}, immutable` : 'no-cache');
        },
      }),
    );
  }
  return app;
}
