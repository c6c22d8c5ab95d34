import type { UniverseReport } from '../../signal/stream';
import { heardFaults } from './heardFaults';
import type { NodeReport } from './nodeReport';

const node = (over: Partial<NodeReport>): NodeReport =>
  ({
    address: '10.0.0.5',
    mac: '02:00:00:00:00:01',
    shortName: 'Try',
    gone: false,
    alsoHere: [],
    alsoAt: [],
    ...over,
  }) as NodeReport;
const universe = (...streams: object[]): UniverseReport =>
  ({
    streams: streams.map((one) => ({ cid: 'c', twin: true, own: false, name: 'Desk', address: '10.0.0.8', ...one })),
  }) as unknown as UniverseReport;
const keys = (nodes: NodeReport[], universes: UniverseReport[] = []) =>
  heardFaults({ nodes, universes }).map(({ key }) => key);

test('nothing is wrong with machines that are each one', () => {
  expect(
    keys([node({}), node({ address: '10.0.0.6', mac: '02:00:00:00:00:02' })], [universe({ twin: false })]),
  ).toEqual([]);
});

test('two boxes at one address, and one hardware address at two, are each told once', () => {
  const [one, other] = [node({ alsoAt: ['10.0.0.6'] }), node({ address: '10.0.0.6', alsoAt: ['10.0.0.5'] })];
  expect(keys([one, other])).toEqual(['hardware 02:00:00:00:00:01']);
  const shared = node({ alsoHere: ['02:00:00:00:00:09'] });
  expect(keys([shared])).toEqual(['address 10.0.0.5']);
  expect(heardFaults({ nodes: [shared], universes: [] })[0]!.sentence).toBe(
    '2 boxes answer at 10.0.0.5: 02:00:00:00:00:01 and 02:00:00:00:00:09, one of them as Try.',
  );
  expect(keys([node({ alsoHere: ['02:00:00:00:00:09'], gone: true })])).toEqual([]);
});

test('two senders with one component id, on all their universes, are one fault; our own output is none', () => {
  const both = [{}, { address: '10.0.0.9', name: 'Copy' }];
  const [fault] = heardFaults({ nodes: [], universes: [universe(...both), universe(...both)] });
  expect(fault).toMatchObject({ key: 'component c', addresses: ['10.0.0.8', '10.0.0.9'] });
  expect(fault!.sentence).toBe('Desk and Copy send with one component id from 10.0.0.8 and 10.0.0.9, on 2 universes.');
  expect(keys([], [universe({ own: true }, { own: true, address: '10.0.0.9' })])).toEqual([]);
});
