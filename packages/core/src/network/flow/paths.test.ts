import type { StreamReport } from '../../signal/stream';
import { nightFerry } from '../../whole/demo';
import { matchMachines } from '../node';
import { outletsByUniverse, outletText, pathSenders, sendersOf } from '.';

const ferry = nightFerry();
const bridge = sendersOf(ferry.machine).find(({ id }) => id === 'machine-bridge');
const stream = (over: Partial<StreamReport>) =>
  ({ name: 'Bridge desk', address: '127.0.0.21', own: false, lost: false, ...over }) as StreamReport;

test('planned senders come first, heard or not; strangers and ourselves behind them', () => {
  const streams = [
    stream({}),
    stream({ name: '', address: '127.0.0.99' }),
    stream({ own: true, name: 'Taxiarch', address: '127.0.0.1' }),
  ];
  expect(
    pathSenders({ number: 1, protocol: 'sacn' }, [bridge!], { streams }).map(({ name, heard, own }) => [
      name,
      heard,
      own,
    ]),
  ).toEqual([
    ['Bridge desk', true, false],
    ['127.0.0.99', true, false],
    ['Taxiarch', true, true],
  ]);
});

test('who has fallen silent is planned and not heard; our own copy does not stand in for it', () => {
  const streams = [stream({ lost: true }), stream({ own: true })];
  expect(pathSenders({ number: 1, protocol: 'sacn' }, [bridge!], { streams })[0]).toMatchObject({
    name: 'Bridge desk',
    heard: false,
  });
  expect(pathSenders({ number: 1, protocol: 'sacn' }, [bridge!], undefined)).toHaveLength(1);
});

test('outlets by universe: outputs only, each with its port', () => {
  const outlets = outletsByUniverse(matchMachines(ferry, []), ferry.universe);
  expect(outlets.get(1)).toMatchObject([
    { machine: 'Wheelhouse node', port: 1, merge: 'htp', heard: false },
    { machine: 'Foredeck node', port: 1, merge: 'none', heard: false },
  ]);
  // An input is no outlet.
  expect(outlets.get(41)?.map(outletText)).toEqual(['Saloon node, port 2']);
  // A pixel controller takes its universes whole.
  expect(outlets.get(13)?.map(outletText)).toEqual(['Funnel cord driver']);
});
