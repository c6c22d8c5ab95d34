/** What adapters people had running is kept over a restart, however long their thread takes to begin. */
import { PLAIN_MACHINE, PLAIN_PORT } from '@taxiarch/core/show/records';
import type { EngineHost } from '../bridge/host';
import { Notices } from '../bridge/notices';
import { emptyPlan } from '../bridge/plan';
import type { ShowDoor } from '../bridge/showDoor';
import { SettingsFile } from '../settings';
import { newFolder, removeFolder } from '../testing/serverProcess';
import { Plugs } from './plugs';

const folder = newFolder();
afterAll(() => removeFolder(folder));

/** A thread that begins only after more than one look at what is wanted. */
const LATE = new URL(
  `data:text/javascript,${encodeURIComponent(`
    import { parentPort } from 'node:worker_threads';
    parentPort.on('message', ({ type }) => type === 'stop' && parentPort.close());
    setTimeout(() => parentPort.postMessage({ type: 'ready' }), 1200);`)}`,
);
const machine = {
  ...PLAIN_MACHINE,
  ...{ id: 'tally', name: 'Tally plug', kind: 'USB adapter' as const, placeId: null },
  ports: [{ ...PLAIN_PORT, number: 1, use: 'in' as const, universe: 40 }],
  line: { at: '127.0.0.87:2217', slots: 512, routeId: null },
};
const show = { plan: () => ({ ...emptyPlan(), machine: [machine] }) } as unknown as ShowDoor;
const host = {
  levels: { memory: new SharedArrayBuffer(8) },
  rowOf: () => undefined,
  keepMerged: () => undefined,
} as unknown as EngineHost;

test('an input that ran is switched on again, and stays kept, when its thread begins late', async () => {
  const notices = new Notices();
  const settings = new SettingsFile(folder, {}, notices);
  settings.keepInputs(['tally']);
  const plugs = new Plugs(LATE, host, show, settings, notices);
  await plugs.start();
  expect(settings.inputs).toEqual(['tally']);
  // Only a person ends it.
  plugs.run('tally', false, 'Mara');
  expect(settings.inputs).toEqual([]);
  await plugs.stop();
});
