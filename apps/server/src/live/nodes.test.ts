import { ArtNet, blankPollReply, type ArtPollReply } from '@taxiarch/core/artnet';
import { NodeTable } from './nodes';

const page = (bindIndex: number, universes: readonly number[], ltp = false): ArtPollReply => ({
  kind: 'pollReply',
  ...blankPollReply('127.0.0.40', Uint8Array.of(2, 0x7f, 0xf1, 0, 0, 0x40)),
  portName: 'Test node',
  bindIndex,
  portCount: universes.length,
  ports: universes.map((swOut) => ({
    type: ArtNet.PORT_CAN_OUTPUT,
    goodInput: 0,
    goodOutputA: ltp ? ArtNet.OUTPUT_MERGE_LTP : 0,
    goodOutputB: 0,
    swIn: 0,
    swOut,
  })),
});

test('pages of one device are one device, its ports counted through in the order of the pages', () => {
  const table = new NodeTable();
  table.note(page(2, [4, 5]), '127.0.0.40', 10);
  table.note(page(1, [0, 1, 2, 3]), '127.0.0.40', 20);
  const [node, ...more] = table.report(30, 1000);
  expect(more).toEqual([]);
  expect(node).toMatchObject({
    shortName: 'Test node',
    mac: '02:7f:f1:00:00:40',
    gone: false,
    firstSeen: 1010,
    lastSeen: 1020,
  });
  expect(node!.ports.map(({ number, portAddress }) => [number, portAddress])).toEqual(
    [1, 2, 3, 4, 5, 6].map((n) => [n, n - 1]),
  );
  expect(table.nameOf('127.0.0.40')).toBe('Test node');
  expect(table.nameOf('127.0.0.41')).toBe('');
});

test('a device that misses three polls is gone, and nothing is sent to it', () => {
  const table = new NodeTable();
  table.note(page(1, [7]), '127.0.0.40', 0);
  expect(table.listeners(7, 8000)).toEqual({ addresses: ['127.0.0.40'], ltp: false });
  expect(table.listeners(6, 8000).addresses).toEqual([]);
  expect(table.listeners(7, 9000).addresses).toEqual([]);
  expect(table.report(9000, 0)[0]!.gone).toBe(true);
  table.note(page(1, [7], true), '127.0.0.40', 9100);
  expect(table.listeners(7, 9200)).toEqual({ addresses: ['127.0.0.40'], ltp: true });
});
