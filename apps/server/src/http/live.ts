/** What is on the wire now, the interfaces of this computer, and its settings. */
import Router from '@koa/router';
import { boolean, number, object, string } from 'yup';
import type { InterfacesReply, LiveReport, Settings } from '@taxiarch/core/contract';
import type { LiveHost } from '../live/host';
import { chooseInterfaces, listInterfaces } from '../live/interfaces';
import type { SettingsFile } from '../settings';
import type { ShowStore } from '../store/store';
import { ProblemError, require400 } from './problem';

const settingsSchema = object({
  interface: string()
    .strict()
    .matches(
      /^(auto|plan|\d{1,3}(\.\d{1,3}){3})$/,
      'The interface must be “auto”, “plan” or one of this computer’s addresses.',
    ),
  artnetInterface: string()
    .strict()
    .matches(
      /^(same|auto|plan|\d{1,3}(\.\d{1,3}){3})$/,
      'The interface must be “same”, “auto”, “plan” or one of this computer’s addresses.',
    ),
  outputRate: number()
    .strict()
    .min(1, 'The rate must be at least 1 a second.')
    .max(44, 'DMX512 carries at most 44 full frames a second.'),
  outputPriority: number()
    .strict()
    .integer()
    .min(1, 'The priority must be at least 1.')
    .max(200, 'sACN priorities end at 200.'),
  artnetBroadcast: boolean().strict(),
  poll: boolean().strict(),
  artnetTimeout: number()
    .strict()
    .integer()
    .min(1000, 'The time-out must be at least 1 s.')
    .max(60_000, 'The time-out must be at most 60 s.'),
}).noUnknown('There is no such setting.');

export function liveRoutes(host: LiveHost, store: ShowStore, settings: SettingsFile): Router {
  const router = new Router({ prefix: '/api' });

  router.get('/live', (ctx) => {
    const report = host.report();
    if (!report) throw new ProblemError(503, 'Not yet', 'The engine has just started; ask again in a second.');
    ctx.body = report satisfies LiveReport;
  });

  router.get('/interfaces', (ctx) => {
    const interfaces = listInterfaces();
    const { interface: chosen, artnetInterface: artnetChosen } = settings.read();
    const { sacn, artnet } = chooseInterfaces(interfaces, settings.read(), store.records().network);
    ctx.body = { interfaces, chosen, artnetChosen, inUse: sacn, artnetInUse: artnet } satisfies InterfacesReply;
  });

  router.get('/settings', (ctx) => {
    ctx.body = settings.read();
  });

  router.patch('/settings', (ctx) => {
    const changes = require400<Partial<Settings>>(settingsSchema, ctx.request.body);
    const next = settings.change(changes);
    host.setSettings(next);
    ctx.body = next;
  });
  return router;
}
