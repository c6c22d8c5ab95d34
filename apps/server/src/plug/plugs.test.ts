/** What adapters people had running is kept over a restart, however long their thread takes to begin. */
import { PLAIN_MACHINE, PLAIN_PORT } from '@taxiarch/core/show/records';
import type { EngineHost } from '../bridge/host';
import { Notices } from '../bridge/notices';
import { emptyPlan } from '../bridge/plan';
import type { ShowDoor } from '../bridge/showDoor';
import { SettingsFile } from '../settings';
import { eventually, newFolder, removeFolder } from '../testing/serverProcess';
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

/** A thread that says that all runs which is ordered. */
const EAGER = new URL(
  `data:text/javascript,${encodeURIComponent(`
    import { parentPort } from 'node:worker_threads';
    parentPort.on('message', (message) => {
      if (message.type === 'stop') parentPort.close();
      if (message.type === 'run')
        parentPort.postMessage({
          type: 'report',
          plugs: message.orders.map(({ machineId, use, row }) => ({ machineId, use, row, state: 'runs', back: 0 })),
        });
    });
    parentPort.postMessage({ type: 'ready' });`)}`,
);

const begun: Plugs[] = [];
afterEach(() => Promise.all(begun.splice(0).map((one) => one.stop())));

/** Adapters of a plan that is changed, hot or safe. */
async function begin(hot: boolean) {
  const plan = { ...emptyPlan(), universe: [{ number: 40, protocol: 'sacn', wire: 40 }], machine: [machine] };
  const notices = new Notices();
  const settings = new SettingsFile(newFolder(), {}, notices);
  const around = { ...host, rowOf: () => 5, now: () => ({ output: { hot } }) } as unknown as EngineHost;
  const plugs = new Plugs(EAGER, around, { plan: () => plan } as unknown as ShowDoor, settings, notices);
  begun.push(plugs);
  await plugs.start();
  const planned = (use: 'in' | 'out' | 'off') => {
    plan.machine = [{ ...machine, ports: [{ ...machine.ports[0]!, use: use as 'in' }] }];
    plugs.follow();
  };
  const running = () => plugs.report().map(({ use }) => use);
  return { plugs, settings, planned, running };
}

test('what was switched on to take in never sends, though its use is changed in the plan', async () => {
  const { plugs, settings, planned, running } = await begin(false);
  expect(plugs.run('tally', true, 'Mara')).toMatchObject({ ok: true });
  await eventually(running, ([use]) => use === 'in');
  planned('out');
  await eventually(running, ({ length }) => length === 0);
  expect(settings.inputs).toEqual([]);
  planned('in');
  expect(settings.inputs).toEqual([]);
  expect(plugs.run('tally', true, 'Mara')).toMatchObject({ ok: true });
  planned('off');
  await eventually(running, ({ length }) => length === 0);
});

test('an output is switched on by hand only while hot, and ends when it is safe again; an input goes on', async () => {
  const safe = await begin(false);
  safe.planned('out');
  expect(safe.plugs.run('tally', true, 'Mara')).toMatchObject({ ok: false, why: expect.stringMatching(/is safe/) });

  const { plugs, settings, planned, running } = await begin(true);
  planned('out');
  expect(plugs.run('tally', true, 'Mara')).toMatchObject({ ok: true });
  await eventually(running, ([use]) => use === 'out');
  expect(settings.inputs).toEqual([]);
  plugs.makeSafe();
  await eventually(running, ({ length }) => length === 0);
  planned('in');
  expect(plugs.run('tally', true, 'Mara')).toMatchObject({ ok: true });
  await eventually(running, ([use]) => use === 'in');
  plugs.makeSafe();
  expect(settings.inputs).toEqual(['tally']);
});
