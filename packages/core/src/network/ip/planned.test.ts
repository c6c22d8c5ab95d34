/** Addresses that machines are planned to have, the sheet of them, and what a plan of addresses gives to whom. */
import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { type AddressRange, type Machine, type MachineKind, type Network, PLAIN_MACHINE } from '../../show/records';
import {
  addressesOf,
  addressSheet,
  canReach,
  explain,
  fillAddresses,
  hardwareAddress,
  isNear,
  mainAddress,
  putNetwork,
  rangeFor,
  rangesByKind,
  readSubnet,
  withMainAddress,
} from '.';

type Address = Machine['interfaces'][number]['addresses'][number];
const fixed = (address: string, prefix = 8): Address => ({ way: 'fixed', address, prefix });

const machine = (name: string, addresses: readonly Address[] = [], over: Partial<Machine> = {}): Machine => ({
  ...PLAIN_MACHINE,
  ...{ id: name, rev: 1, name, kind: 'node' },
  interfaces: addresses.length === 0 ? [] : [{ name: 'eth0', mac: '02:7f:f1:12:34:56', addresses }],
  ...over,
});

describe('addresses of a machine', () => {
  test('all that are known, in order, with where they stand', () => {
    const one = machine('a', [fixed(''), fixed('10.0.0.5', 16)]);
    const two = { ...one, interfaces: [...one.interfaces, { name: 'b', mac: '', addresses: [fixed('2.0.0.1')] }] };
    expect(addressesOf(two)).toMatchObject([
      { text: '10.0.0.5', prefix: 16, way: 'fixed', iface: 0, index: 1 },
      { text: '2.0.0.1', iface: 1, index: 0 },
    ]);
    expect(addressesOf(two)).toBe(addressesOf(two));
    expect([mainAddress(two), mainAddress(machine('none'))]).toEqual(['10.0.0.5', '']);
  });

  test('one made from the hardware address stands until another is said, and needs one', () => {
    const by = (way: Address['way'], address: string, mac: string) =>
      mainAddress({ ...machine('a'), interfaces: [{ name: '', mac, addresses: [{ way, address, prefix: 8 }] }] });
    expect(by('hardware', '', '02:7f:f1:12:34:56')).toBe('2.17.52.86');
    expect(by('hardware', '2.1.1.1', '02:7f:f1:12:34:56')).toBe('2.1.1.1');
    expect(by('hardware', '', '')).toBe('');
    expect(by('dhcp', '', '02:7f:f1:12:34:56')).toBe('');
  });

  test.each(['', '02:7f:f1:12:34', '02:7f:f1:12:34:xx', '02:7f:f1:12:34:56:78'])('“%s” is no hardware address', (mac) =>
    expect(hardwareAddress(mac, 0xff)).toBeUndefined(),
  );

  test('a main address set keeps the interface, its other addresses and the others; one is made where there is none', () => {
    const two = machine('a', [fixed('10.0.0.5', 16), fixed('10.0.0.6', 16)]);
    const set = withMainAddress(
      { ...two, interfaces: [...two.interfaces, { name: 'b', mac: '', addresses: [] }] },
      '2.0.0.9',
      8,
    );
    expect(set.interfaces).toEqual([
      { name: 'eth0', mac: '02:7f:f1:12:34:56', addresses: [fixed('2.0.0.9'), fixed('10.0.0.6', 16)] },
      { name: 'b', mac: '', addresses: [] },
    ]);
    expect(withMainAddress(machine('b'), '2.0.0.9', 8).interfaces).toEqual([
      { name: '', mac: '', addresses: [fixed('2.0.0.9')] },
    ]);
    const bare = { ...machine('c'), interfaces: [{ name: 'x', mac: '', addresses: [] }] };
    expect(withMainAddress(bare, '2.0.0.9', 8).interfaces[0]!.addresses).toEqual([fixed('2.0.0.9')]);
  });

  test('how it comes by its address stays, but for one that was made from hardware', () => {
    const way = (was: Address['way']) =>
      withMainAddress(machine('a', [{ way: was, address: '10.0.0.5', prefix: 8 }]), '10.0.0.9', 8).interfaces[0]!
        .addresses[0]!.way;
    expect([way('dhcp'), way('fixed'), way('hardware')]).toEqual(['dhcp', 'fixed', 'fixed']);
  });
});

describe('the sheet', () => {
  const models = [{ ...nightFerry().model[0]!, id: 'm', maker: 'Tern', name: 'Rack 8' }];
  const places = [{ ...nightFerry().place[0]!, id: 'p', name: 'Car deck' }];
  const rows = (...machines: Machine[]) =>
    addressSheet({ ...nightFerry(), machine: machines, model: models, place: places });

  test('one line an address, each with all that is known of it', () => {
    const one = machine('Node', [fixed('10.0.0.5', 16), fixed('2.0.0.5')], { modelId: 'm', placeId: 'p' });
    const [second, first] = rows(one);
    expect(first).toEqual({
      ...{ name: 'Node', kind: 'node', model: 'Tern Rack 8', place: 'Car deck', iface: 'eth0' },
      ...{ mac: '02:7f:f1:12:34:56', address: '10.0.0.5', mask: '255.255.0.0', way: 'fixed' },
    });
    expect(second).toMatchObject({ address: '2.0.0.5' });
  });

  test('what is not known is empty, and a machine without an address has a line all the same', () => {
    const bare = machine('Desk', [], { modelId: 'gone', placeId: null });
    expect(rows(bare)).toEqual([
      { name: 'Desk', kind: 'node', model: '', place: '', iface: '', mac: '', address: '', mask: '', way: '' },
    ]);
    const known = { ...bare, interfaces: [{ name: 'eth1', mac: '02:00:00:00:00:01', addresses: [] }] };
    expect(rows(known)[0]).toMatchObject({ mac: '02:00:00:00:00:01', address: '' });
  });
});

describe('ranges', () => {
  const tops = (network: string, prefix: number) =>
    rangesByKind(network, prefix).map(({ first, last }) => `${first}-${last}`);

  test('whole hundreds in a large network, without their first and last address', () =>
    expect(tops('10.0.0.0', 8).slice(0, 3)).toEqual([
      '10.0.0.1-10.0.0.254',
      '10.0.1.1-10.0.1.254',
      '10.0.2.1-10.0.2.254',
    ]));

  test('equal parts in a small one; what has no room gets none', () => {
    expect(tops('192.168.10.0', 24)).toEqual([
      '192.168.10.1-192.168.10.35',
      '192.168.10.36-192.168.10.71',
      '192.168.10.72-192.168.10.107',
      '192.168.10.108-192.168.10.143',
      '192.168.10.144-192.168.10.179',
      '192.168.10.180-192.168.10.215',
      '192.168.10.216-192.168.10.251',
    ]);
    expect(tops('10.0.0.0', 30)).toEqual(['10.0.0.1-10.0.0.1', '10.0.0.2-10.0.0.2']);
  });

  const network = (ranges: readonly AddressRange[]): Network => ({
    ...{ id: 'n', rev: 1, name: 'Lights', network: '10.0.0.0', prefix: 8, dhcp: false, standIn: false },
    ranges,
  });
  const range = (over: Partial<AddressRange>): AddressRange => ({
    ...{ label: '', kinds: [], placeId: null, first: '10.0.0.10', last: '10.0.0.20' },
    ...over,
  });

  test('a machine belongs in the first that takes its kind and its place', () => {
    const plan = network([
      range({ label: 'desks', kinds: ['console'] }),
      range({ label: 'bow', kinds: ['node'], placeId: 'bow' }),
      range({ label: 'rest' }),
    ]);
    const of = (kind: MachineKind, placeId: string | null) => rangeFor(plan, { ...machine('a'), kind, placeId })?.label;
    expect([of('console', 'bow'), of('node', 'bow'), of('node', null), of('switch', 'bow')]).toEqual([
      'desks',
      'bow',
      'rest',
      'rest',
    ]);
    expect(rangeFor(network([range({ kinds: ['console'] })]), machine('a'))).toBeUndefined();
  });

  const show = (...machines: Machine[]) => ({ ...nightFerry(), machine: machines, network: [] });
  const given = (plan: ReturnType<typeof fillAddresses>, ...machines: Machine[]) =>
    recordsAfter(show(...machines), plan.ok ? plan.value.changes : []).machine.map(mainAddress);

  test('consoles first, their backups next, then by name with numbers as numbers', () => {
    const all = [
      machine('Node 10'),
      machine('Backup', [], { kind: 'backup console' }),
      machine('Node 2'),
      machine('Desk', [], { kind: 'console' }),
    ];
    const plan = fillAddresses(show(...all), network([range({})]), 'all');
    expect(given(plan, ...all)).toEqual(['10.0.0.13', '10.0.0.11', '10.0.0.12', '10.0.0.10']);
    expect(plan.ok && plan.value.sentence).toBe('Gave 4 machines addresses by Lights');
    expect(plan.ok && plan.value.lines[0]).toEqual({ subject: 'Desk', before: 'none', after: '10.0.0.10 / 255.0.0.0' });
  });

  test('the last address of a range is given too; then it is full, by its label or its beginning', () => {
    const all = [machine('a'), machine('b')];
    const two = network([range({ last: '10.0.0.11' })]);
    expect(given(fillAddresses(show(...all), two, 'all'), ...all)).toEqual(['10.0.0.10', '10.0.0.11']);
    expect(fillAddresses(show(...all, machine('c')), two, 'all')).toMatchObject({
      ok: false,
      why: 'The range 10.0.0.10 ends at 10.0.0.11; c finds no room.',
    });
  });

  test('who keeps an address keeps it from the others; who has the right one already is not named', () => {
    const all = [machine('kept', [fixed('10.0.0.10')]), machine('new'), machine('elsewhere', [fixed('2.0.0.1')])];
    const plan = fillAddresses(show(...all), network([range({})]), 'new');
    expect(plan.ok && plan.value.lines.map(({ subject, before }) => [subject, before])).toEqual([
      ['elsewhere', '2.0.0.1'],
      ['new', 'none'],
    ]);
    expect(given(plan, ...all)).toEqual(['10.0.0.10', '10.0.0.12', '10.0.0.11']);
    const again = fillAddresses(show(machine('kept', [fixed('10.0.0.10')])), network([range({})]), 'all');
    expect(again).toMatchObject({ ok: false, why: 'Every machine has the address that this plan gives it.' });
    const mask = fillAddresses(show(machine('kept', [fixed('10.0.0.10', 16)])), network([range({})]), 'all');
    expect(mask).toMatchObject({ ok: true, value: { lines: [{ before: '10.0.0.10' }] } });
    expect(fillAddresses(show(machine('kept', [fixed('10.0.0.10')])), network([range({})]), 'new')).toMatchObject({
      ok: false,
      why: 'Every machine has an address in this plan already.',
    });
  });

  test('what is on no network gets no address', () => {
    const plug = machine('Plug', [], { kind: 'USB adapter' });
    expect(fillAddresses(show(plug), network([range({})]), 'all')).toMatchObject({ ok: false });
    const both = [plug, machine('a')];
    expect(given(fillAddresses(show(...both), network([range({})]), 'all'), ...both)).toEqual(['', '10.0.0.10']);
  });

  test.each([
    [[range({ first: 'x' })], 'four numbers with dots'],
    [[range({ last: '10.0.0.9' })], 'The range 10.0.0.10 ends before it begins.'],
    [[range({ label: 'A', last: '11.0.0.1' })], 'The range A lies outside 10.0.0.0/8.'],
    [[range({ label: 'A', first: '9.0.0.1' })], 'The range A lies outside 10.0.0.0/8.'],
    [[range({ first: '10.0.0.20', last: '10.0.0.30' }), range({ label: 'B' })], 'The ranges B and 10.0.0.20 overlap.'],
  ])('%# is refused', (ranges, why) => {
    const refused = putNetwork(undefined, { ...network(ranges), rev: 0 });
    expect(refused.ok ? '' : refused.why).toContain(why);
  });

  test('one address is a range, and two may touch', () => {
    const ranges = [range({ label: 'B', first: '10.0.0.21', last: '10.0.0.21' }), range({})];
    const plan = putNetwork(undefined, { ...network(ranges), rev: 0 });
    expect(plan.ok && plan.value.lines.find(({ subject }) => subject === 'Lights, ranges')?.after).toBe(
      'B 10.0.0.21 to 10.0.0.21, 10.0.0.10 to 10.0.0.20',
    );
  });
});

describe('subnets and reach', () => {
  test('a subnet is refused by its address or by its mask, in words', () => {
    const why = (text: string) => {
      const read = readSubnet(text);
      return read.ok ? `${read.value.prefix}` : read.why;
    };
    expect([why(' 10.0.0.0/30 '), why('10.0.0.0/0')]).toEqual(['30', '0']);
    expect(why('10.0.0.0/31')).toBe('Write the mask’s length behind a stroke, from 0 to 30, as in 10.0.0.0/8.');
    expect(why('10.0.0.0/255.0.255.0')).toMatch(/^Write the mask’s length/);
    expect(why('ten/8')).toBe('“ten” is no address: write four numbers with dots, as in 10.0.0.0.');
    expect(why('')).toMatch(/^“” is no address/);
  });

  test('an address is near an interface if its mask says so; what is no address is not', () => {
    const eth = { address: '10.1.0.5', netmask: '255.255.0.0' };
    expect([isNear('10.1.9.9', eth), isNear('10.2.0.5', eth), isNear('x', eth)]).toEqual([true, false, false]);
    expect([isNear('10.1.9.9', { ...eth, address: '' }), isNear('10.1.9.9', { ...eth, netmask: '' })]).toEqual([
      false,
      false,
    ]);
  });

  test('the other way round, and a machine without an address', () => {
    const [node, desk] = [machine('Node', [fixed('10.1.0.6', 16)]), machine('Desk', [fixed('10.0.0.5')])];
    expect(canReach(node, desk, [])).toMatchObject({
      reaches: false,
      sentence:
        'Not both ways: by the mask of Node (255.255.0.0) Desk is outside its network, though Desk would find it.',
    });
    expect(canReach(node, machine('Lost'), [])).toMatchObject({
      ...{ reaches: false, looks: [], pair: undefined },
      sentence: 'Lost has no address yet, so nobody can say.',
    });
  });

  test('a pair that can be open is shown before one on loopback', () => {
    const one = machine('a', [fixed('127.0.0.1'), fixed('10.0.0.1')]);
    const answer = canReach(one, machine('b', [fixed('2.0.0.1')]), []);
    expect([answer.pair![0].text, answer.sentence]).toEqual([
      '10.0.0.1',
      'No: a is in network 10.0.0.0, b in 2.0.0.0.',
    ]);
    expect(canReach(machine('c', [fixed('127.0.0.1')]), one, []).sentence).toMatch(/^No: 127 is loopback/);
  });

  test('what a mask keeps, in numbers or bits', () => {
    const keeps = (prefix: number) =>
      explain(
        canReach(machine('a', [fixed('10.0.0.1', prefix)]), machine('b', [fixed('10.0.0.2', prefix)]), []).looks[0]!,
      );
    expect(keeps(8)).toBe(
      'The mask of 10.0.0.1 keeps the first number. For both that is 10.0.0.0: 10.0.0.1 sends straight to 10.0.0.2.',
    );
    expect(keeps(16)).toContain('the first 2 numbers.');
    expect(keeps(20)).toContain('the first 20 bits.');
  });
});
