import { nightFerry } from '../demo';
import type { HeardMachine, MachineEntry, NodePortReport, NodeReport } from '../node';
import { Patch } from '../patch';
import type { Model, ShowRecords } from '../records';
import type { StreamReport, UniverseReport } from '../stream';
import { forecastTake } from '.';

const ferry = nightFerry();
const patch = new Patch(ferry.lamp, ferry.type, ferry.run, ferry.machine);
const stream = (name: string, address: string, priority: number): StreamReport =>
  ({
    name,
    address,
    cid: name,
    priority,
    lost: false,
    preview: false,
    own: false,
    levels: true,
    slotCount: 512,
  }) as StreamReport;
const bridge = stream('Bridge desk', '127.0.0.21', 100);
const stern = stream('Stern desk', '127.0.0.22', 90);
const six = (...streams: StreamReport[]) => [{ key: 6, streams } as unknown as UniverseReport];
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
const boiler = (over: Partial<NodePortReport> = {}, gone = false): MachineEntry[] => {
  const node = { ports: [port(1, over)] } as unknown as NodeReport;
  const plan = ferry.machine.find(({ id }) => id === 'machine-boiler')!;
  return [{ plan, heard: { node, gone, address: '127.0.0.32' } as HeardMachine } as MachineEntry];
};
const withModel = (over: Partial<Model>): ShowRecords => ({
  ...ferry,
  model: ferry.model.map((one) => (one.name === 'Quad 4' ? { ...one, ...over } : one)),
});
const forecast = (
  reports: UniverseReport[],
  entries: MachineEntry[],
  { records = ferry, priority = 150 }: { records?: ShowRecords; priority?: number } = {},
) => forecastTake(records, patch, 6, priority, reports, entries).find(({ nodeId }) => nodeId === 'machine-boiler');

test('a port with room follows, and so does one that lets a higher priority in', () => {
  expect(forecast(six(bridge), boiler())).toMatchObject({ name: 'Boiler node, port 1', follows: true, says: '' });
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
    says: 'Bridge desk has a higher priority',
  });
  expect(forecast(six(bridge), boiler(), { priority: 100 })).toMatchObject({
    follows: true,
    says: 'the highest wins there: it can be raised and not lowered',
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
  expect(forecast(six(bridge), boiler({}, true))).toMatchObject({ follows: undefined });
  expect(forecast(six(bridge), [])).toMatchObject({ follows: undefined });
});
