/** What is on the wire now, the interfaces of this computer, and its settings. */
import type { EngineHost } from '../bridge/host';
import { chooseInterfaces, listInterfaces } from '../bridge/interfaces';
import type { Notices } from '../bridge/notices';
import type { Exchange } from '../exchange/exchange';
import type { Practising } from '../practise/practising';
import type { SettingsFile } from '../settings';
import type { ShowDoor } from '../bridge/showDoor';
import { readSacnRuns } from '@taxiarch/core/base/address';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

type LiveHandlers = Pick<
  Handlers,
  | 'sweep'
  | 'stopSweep'
  | 'readNodes'
  | 'readHappened'
  | 'readLive'
  | 'readInterfaces'
  | 'readSettings'
  | 'changeSettings'
  | 'dismissNotice'
>;

export const liveHandlers = (
  host: EngineHost,
  show: ShowDoor,
  settings: SettingsFile,
  notices: Notices,
  practising: Practising,
  exchange: Exchange,
): LiveHandlers => ({
  readLive: () => host.now(),

  sweep: async ({ body: { universes } }) => {
    const ranges = readSacnRuns(universes);
    if (!ranges.ok) throw new ProblemError('not-understood', ranges.why);
    const refused = await host.ask({ type: 'sweep', ranges: ranges.value });
    if (refused !== undefined) throw new ProblemError('not-possible', refused);
    return host.now().sweep;
  },

  stopSweep: async () => {
    await host.ask({ type: 'stopSweep' });
    return host.now().sweep;
  },

  readHappened: () => ({ happened: [...host.happened.list(Date.now())] }),

  readNodes: ({ query: { from } }) => host.nodes(Math.max(0, from ?? 0)),

  readInterfaces: () => {
    const interfaces = listInterfaces();
    const { interface: chosen, artnetInterface: artnetChosen } = settings.read();
    const { sacn, artnet } = chooseInterfaces(interfaces, settings.read(), show.plan().network);
    return { interfaces, chosen, artnetChosen, inUse: sacn, artnetInUse: artnet };
  },

  readSettings: () => settings.read(),

  changeSettings: ({ body }) => {
    practising.refuse(body);
    const next = settings.change(body);
    host.setSettings(next);
    exchange.follow();
    return next;
  },

  dismissNotice: ({ body: { id } }) => notices.dismiss(id),
});
