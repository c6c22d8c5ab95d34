/** The HTTP side put together: guard, pairing, API, and the client's files. */
import { join } from 'node:path';
import { bodyParser } from '@koa/bodyparser';
import Koa from 'koa';
import compress from 'koa-compress';
import serve from 'koa-static';
import type { Logger } from 'pino';
import type { Feed } from '../live/feed';
import type { LiveHost } from '../live/host';
import type { SettingsFile } from '../settings';
import type { Findings } from '../findings/findings';
import type { Imports } from '../imports/imports';
import type { KeptFiles } from '../store/files';
import type { ShowStore } from '../store/store';
import type { Guard } from './guard';
import { exportRoutes } from './exports';
import { importRoutes } from './imports';
import { liveRoutes } from './live';
import { nodeRoutes } from './nodes';
import { openApi } from './openapi';
import { outputRoutes } from './output';
import { pairing } from './pairing';
import { ProblemError, problems } from './problem';
import { routeRoutes } from './routes';
import { showRoutes } from './show';
import { standInRoutes } from './standIns';

export interface Parts {
  readonly store: ShowStore;
  readonly files: KeptFiles;
  readonly imports: Imports;
  readonly findings: Findings;
  readonly host: LiveHost;
  readonly feed: Feed;
  readonly settings: SettingsFile;
  readonly guard: Guard;
  readonly log: Logger;
  /** Folder of the built client; without it only the API is served. */
  readonly client: string | undefined;
  /** Address of the stand-ins’ bench, if there is one. */
  readonly bench: string | undefined;
}

const YEAR_MS = 365 * 24 * 3600 * 1000;

export function createApp({
  store,
  files,
  imports,
  findings,
  host,
  feed,
  settings,
  guard,
  log,
  client,
  bench,
}: Parts): Koa {
  const app = new Koa();
  app.use(problems(log));
  app.use(async (ctx, next) => {
    const refused = guard.refuse(ctx.req);
    if (refused) throw new ProblemError(403, 'Refused', refused);
    ctx.set({
      'X-Content-Type-Options': 'nosniff',
      'X-Frame-Options': 'DENY',
      'Referrer-Policy': 'no-referrer',
    });
    await next();
  });
  app.use(compress({ threshold: 1024, br: false }));
  app.use(bodyParser({ enableTypes: ['json', 'form'], jsonLimit: '32mb', formLimit: '1kb' }));
  app.use(pairing(guard));
  for (const router of [
    showRoutes(store, findings),
    importRoutes(imports, store),
    exportRoutes(store, files),
    liveRoutes(host, store, settings),
    outputRoutes(host, store, feed),
    routeRoutes(host),
    nodeRoutes(host, store),
    standInRoutes(bench),
  ])
    app.use(router.routes());
  app.use(async (ctx, next) => {
    if (ctx.method === 'GET' && ctx.path === '/api/openapi.json') ctx.body = openApi;
    else await next();
  });
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
          const named = path.startsWith(join(client, '_expo')) || path.startsWith(join(client, 'fonts'));
          res.setHeader('Cache-Control', named ? `public, max-age=${YEAR_MS / 1000}, immutable` : 'no-cache');
        },
      }),
    );
  }
  return app;
}
