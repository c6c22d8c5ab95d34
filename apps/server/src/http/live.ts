/** What is on the wire now, the interfaces of this computer, and its settings. */
import type { EngineHost } from '../bridge/host';
import { chooseInterfaces, listInterfaces } from '../bridge/interfaces';
import type { Notices } from '../bridge/notices';
import type { SettingsFile } from '../settings';
import type { ShowStore } from '../store/store';
import type { Handlers } from './api';

type LiveHandlers = Pick<Handlers, 'readLive' | 'readInterfaces' | 'readSettings' | 'changeSettings' | 'dismissNotice'>;

export const liveHandlers = (
  host: EngineHost,
  store: ShowStore,
  settings: SettingsFile,
  notices: Notices,
): LiveHandlers => ({
  readLive: () => host.now(),

  readInterfaces: () => {
    const interfaces = listInterfaces();
    const { interface: chosen, artnetInterface: artnetChosen } = settings.read();
    const { sacn, artnet } = chooseInterfaces(interfaces, settings.read(), store.records().network);
    return { interfaces, chosen, artnetChosen, inUse: sacn, artnetInUse: artnet };
  },

  readSettings: () => settings.read(),

  changeSettings: ({ body }) => {
    const next = settings.change(body);
    host.setSettings(next);
    return next;
  },

  dismissNotice: ({ body: { id } }) => notices.dismiss(id),
});
