import { nightFerry } from '../../whole/demo';
import type { HeardMachine, MachineEntry, NodePortReport, NodeReport } from '../../network/node';
import { Patch } from '../../rig/patch';
import type { Model, ShowRecords } from '../../show/records';
import type { StreamReport, UniverseReport } from '../../signal/stream';
import { forecastTake } from './forecast';

const ferry = nightFerry();
const patch = new Patch(ferry.lamp, ferry.type, ferry.run, ferry.machine);
const stream = (name: string, address: string, priority: number): StreamReport =>
  ({
    name,
    address,
    cid: name,
    priority,
    startCodes: [],
    lastSeen: 100_000,
    rate1: 40,
    rate10: 40,
    syncAddress: 0,
    lost: false,
    preview: false,
    own: false,
    levels: true,
    slotCount: 512,
  }) as unknown as StreamReport;
const bridge = stream('Bridge desk', '127.0.0.21', 100);
const stern = stream('Stern desk', '127.0.0.22', 90);
const six = (...streams: StreamReport[]) => [{ key: 6, protocol: 'sacn', streams } as unknown as UniverseReport];
const port = (number: number, over: Partial<NodePortReport> = {}): NodePortReport =>
  ({
    number,
    direction: 'out',
    sacn: true,
    portAddress: 6,
    disabled: false,
    ltp: false,
    active: true,
    ...over,
  }) as NodePortReport;
const AT = 100_000;
const boiler = (over: Partial<NodePortReport> = {}, gone = false): MachineEntry[] => {
  const node = { ports: [port(1, over)], mask: '', alsoHere: [], lastSeen: AT } as unknown as NodeReport;
  const plan = ferry.machine.find(({ id }) => id === 'machine-boiler')!;
  return [{ plan, heard: { node, gone, address: '127.0.0.32' } as HeardMachine } as MachineEntry];
};
const withModel = (over: Partial<Model>): ShowRecords => ({
  ...ferry,
  model: ferry.model.map((one) => (one.name === 'Quad 4' ? { ...one, ...over } : one)),
});
const forecast = (
  universes: UniverseReport[],
  entries: MachineEntry[],
  { records = ferry, priority = 150 }: { records?: ShowRecords; priority?: number } = {},
) => {
  const by = { address: '127.0.0.1' };
  const rest = { syncs: [], listed: [], polled: true, membership: { wanted: 41, joined: 41 }, listeningSince: 0 };
  const heard = { at: AT, universes, interface: by, artnetInterface: by, ...rest };
  return forecastTake({ records, patch, heard, entries }, 6, priority).find(
    ({ nodeId }) => nodeId === 'machine-boiler',
  );
};

test('a port with room follows, and so does one that lets a higher priority in', () => {
  expect(forecast(six(bridge), boiler())).toMatchObject({ name: 'Port 1 of Boiler node', follows: true, says: '' });
  expect(forecast(six(bridge, stern), boiler())).toMatchObject({ follows: true });
});

test('a port whose places are taken, of a model that gives them by who came first, does not follow', () =>
  expect(forecast(six(bridge, stern), boiler(), { records: withModel({ priorityFirst: false }) })).toMatchObject({
    follows: false,
    says: 'merges already as many senders as it can: Bridge desk and Stern desk',
    mend: expect.stringContaining('cancel the merge at Boiler node') as string,
  }));

test('who sends at a higher priority wins, and at the same one the highest level does', () => {
  expect(forecast(six(bridge), boiler(), { priority: 80 })).toMatchObject({
    follows: false,
    says: 'follows Bridge desk, at a higher priority',
  });
  expect(forecast(six(bridge), boiler(), { priority: 100 })).toMatchObject({
    follows: true,
    says: 'takes the highest: it can be raised and not lowered',
  });
});

test.each([
  ['set to another universe', { portAddress: 9 }, 'is set to another universe'],
  ['an input', { direction: 'in' as const }, 'is an input'],
  ['off', { disabled: true }, 'is off'],
])('a port that is %s does not follow', (_, over, says) =>
  expect(forecast(six(bridge), boiler(over))).toMatchObject({
    follows: false,
    says,
    mend: 'Push the plan to Boiler node.',
  }),
);

test('of a node that does not answer nobody knows', () => {
  expect(forecast(six(bridge), boiler({}, true))).toMatchObject({ follows: null });
  expect(forecast(six(bridge), [])).toMatchObject({ follows: null });
});
