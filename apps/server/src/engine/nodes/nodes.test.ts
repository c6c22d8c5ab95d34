import { ArtNet, blankPollReply, type ArtPollReply } from '@taxiarch/core/protocol/artnet';
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

test('while this computer itself was held up nobody is gone who was there before', () => {
  const table = new NodeTable();
  table.note(page(1, [7]), '127.0.0.40', 0);
  table.note({ ...page(1, [7]), mac: Uint8Array.of(2, 0, 0, 0, 0, 9) }, '127.0.0.41', 20_000);
  table.note({ ...page(1, [7]), mac: Uint8Array.of(2, 0, 0, 0, 0, 8) }, '127.0.0.42', 39_999);
  // From 22,000 to 40,000 nothing ran here: the first had been gone before, the second had not; the third was heard since.
  table.excuse(18_000, 40_000);
  expect(table.listeners(7, 40_000).addresses).toEqual(['127.0.0.41', '127.0.0.42']);
  expect(table.listeners(7, 46_000).addresses).toEqual(['127.0.0.41', '127.0.0.42']);
  expect(table.listeners(7, 47_500).addresses).toEqual(['127.0.0.42']);
  expect(table.listeners(7, 49_500).addresses).toEqual([]);
});

test('a machine that answers at a new address has left its old one', () => {
  const table = new NodeTable();
  table.note(page(1, [7]), '127.0.0.40', 0);
  table.note({ ...page(1, [7]), bindIp: '127.0.0.50' }, '127.0.0.50', 100);
  expect(table.report(200, 0).map(({ address }) => address)).toEqual(['127.0.0.50']);
  expect(table.more(200)).toBe(0);
  expect(table.whereIs('02:7f:f1:00:00:40', '')).toEqual({ address: '127.0.0.50', lastSeen: 100 });
});

test('machines that tell no hardware address are told apart by where they are', () => {
  const table = new NodeTable();
  const bare = { ...page(1, [7]), mac: new Uint8Array(6) };
  table.note(bare, '127.0.0.40', 0);
  table.note(bare, '127.0.0.50', 0);
  expect(table.report(1, 0)).toHaveLength(2);
  expect(table.whereIs('00:00:00:00:00:00', '127.0.0.50')?.address).toBe('127.0.0.50');
});

test('another machine at a known address does not inherit its pages', () => {
  const table = new NodeTable();
  table.note(page(2, [4]), '127.0.0.40', 0);
  table.note({ ...page(1, [9]), mac: Uint8Array.of(2, 0, 0, 0, 0, 1) }, '127.0.0.40', 10);
  expect(table.report(20, 0)[0]!.ports.map(({ portAddress }) => portAddress)).toEqual([9]);
});

test('masks are asked for of those present, each once in a while, and told with the node', () => {
  const table = new NodeTable();
  table.note(page(1, [7]), '127.0.0.40', 0);
  expect(table.toAskForIp(10, -10)).toEqual(['127.0.0.40']);
  expect(table.toAskForIp(20, -10)).toEqual([]);
  expect(table.toAskForIp(30, 15)).toEqual(['127.0.0.40']);
  expect(table.toAskForIp(20_000, 15_000)).toEqual([]);
  const reply = {
    kind: 'ipProgReply',
    ip: '',
    mask: '255.255.0.0',
    gateway: '127.0.0.1',
    port: 0,
    dhcp: true,
  } as const;
  table.noteIp(reply, '127.0.0.40');
  expect(table.report(30, 0)[0]).toMatchObject({ mask: '255.255.0.0', gateway: '127.0.0.1', dhcp: true });
});

test('Art-Net is not sent to a port that listens to sACN', () => {
  const table = new NodeTable();
  const sacn = { ...page(1, [7]) };
  table.note(
    { ...sacn, ports: sacn.ports.map((port) => ({ ...port, goodOutputA: ArtNet.OUTPUT_FROM_SACN })) },
    '127.0.0.40',
    0,
  );
  expect(table.listeners(7, 10).addresses).toEqual([]);
});

describe('who claims what', () => {
  const OTHER_MAC = Uint8Array.of(2, 0, 0, 0, 0, 1);
  const claims = (table: NodeTable, now: number) =>
    table
      .report(now, 0)
      .map(({ address, mac, alsoHere, alsoAt, partOf }) => ({ address, mac, alsoHere, alsoAt, partOf }));

  test('two boxes at one address', () => {
    const table = new NodeTable();
    for (const now of [0, 2800]) {
      table.note(page(1, [7]), '127.0.0.40', now);
      table.note({ ...page(1, [9]), mac: OTHER_MAC }, '127.0.0.40', now + 1);
    }
    const shared = { address: '127.0.0.40', alsoAt: [], partOf: '' };
    expect(claims(table, 3000)).toEqual([
      { ...shared, mac: '02:7f:f1:00:00:40', alsoHere: ['02:00:00:00:00:01'] },
      { ...shared, mac: '02:00:00:00:00:01', alsoHere: ['02:7f:f1:00:00:40'] },
    ]);
    table.note(page(1, [7]), '127.0.0.40', 5600);
    table.sweep(13_000);
    expect(claims(table, 13_000)).toMatchObject([{ mac: '02:7f:f1:00:00:40', alsoHere: [] }]);
  });

  test('one hardware address at two addresses', () => {
    const table = new NodeTable();
    for (const now of [0, 2800]) {
      table.note({ ...page(1, [7]), bindIp: '127.0.0.40' }, '127.0.0.40', now);
      table.note({ ...page(1, [7]), bindIp: '127.0.0.50' }, '127.0.0.50', now + 1);
    }
    expect(claims(table, 3000).map(({ address, alsoAt }) => [address, alsoAt])).toEqual([
      ['127.0.0.40', ['127.0.0.50']],
      ['127.0.0.50', ['127.0.0.40']],
    ]);
  });

  test('a product of several addresses is one product, and no fault', () => {
    const table = new NodeTable();
    for (const now of [0, 2800])
      for (const address of ['127.0.0.40', '127.0.0.50']) table.note(page(1, [7]), address, now);
    expect(claims(table, 3000)).toMatchObject([
      { address: '127.0.0.40', alsoAt: [], partOf: '' },
      { address: '127.0.0.50', alsoAt: [], partOf: '127.0.0.40' },
    ]);
  });
});

test('ten thousand strangers are counted; what the show plans is told first and forgotten never', () => {
  const table = new NodeTable();
  const at = (n: number) => `10.${n >> 16}.${(n >> 8) & 255}.${n & 255}`;
  for (let n = 0; n < 10_000; n += 1) {
    const mac = Uint8Array.of(2, 1, 0, 0, n >> 8, n & 255);
    table.note({ ...page(1, [7]), mac, portName: `\u202e<b>${n}` }, at(n), 0);
  }
  table.expect({ addresses: ['127.0.0.40'], macs: [] });
  table.note(page(1, [7]), '127.0.0.40', 10);
  const report = table.report(20, 0);
  expect(report).toHaveLength(101);
  expect(report[0]!.address).toBe('127.0.0.40');
  expect(report.length + table.more(20)).toBe(10_001);
  expect(JSON.stringify(report).length).toBeLessThan(150_000);
  expect(table.page(100, 20, 0)).toMatchObject({ count: 1024, nodes: { length: 100 } });
  expect(table.page(0, 20, 0).nodes[0]!.address).toBe('127.0.0.40');
  table.sweep(70_000);
  expect(table.report(70_000, 0).map(({ address, gone }) => [address, gone])).toEqual([['127.0.0.40', true]]);
  expect(table.more(70_000)).toBe(0);
});
