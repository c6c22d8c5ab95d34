import fc from 'fast-check';
import {
  addressesOf,
  addressesReach,
  addressSheet,
  bitsOf,
  canReach,
  explain,
  fillAddresses,
  hardwareAddress,
  inNetwork,
  type InterfaceInfo,
  interfaceWarnings,
  ipNumber,
  ipText,
  lastOf,
  maskLength,
  maskText,
  networkOf,
  putNetwork,
  rangesByKind,
  readSubnet,
  SCHEMES,
} from '.';
import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { type Machine, type MachineKind, type Network, PLAIN_MACHINE } from '../../show/records';

const address = fc.integer({ min: 0, max: 0xffffffff });
const prefix = fc.integer({ min: 0, max: 32 });

const machine = (id: string, ...at: readonly [text: string, prefix: number][]): Machine => ({
  ...PLAIN_MACHINE,
  id,
  rev: 1,
  name: id,
  kind: 'node',
  interfaces: [
    { name: '', mac: '', addresses: at.map(([text, length]) => ({ way: 'fixed', address: text, prefix: length })) },
  ],
});
const standIns: Network = {
  id: 'n',
  rev: 1,
  name: 'Bench',
  network: '127.0.0.0',
  prefix: 8,
  dhcp: false,
  standIn: true,
  ranges: [],
};

describe('addresses and masks', () => {
  test('text and number are two names of one thing', () =>
    fc.assert(fc.property(address, (number) => expect(ipNumber(ipText(number))).toBe(number))));

  test.each(['', '10.0.0', '10.0.0.256', '010.1.2.3', '10.0.0.1.2', 'ten', '10.0.0.1/8', '::1'])(
    '“%s” is no address',
    (text) => expect(ipNumber(text)).toBeUndefined(),
  );

  test('a mask has one length, and a length one mask', () => {
    fc.assert(fc.property(prefix, (length) => expect(maskLength(maskText(length))).toBe(length)));
    expect(maskLength('255.0.255.0')).toBeUndefined();
  });

  test('an address lies between the first and the last of its network, and its bits below the mask change nothing', () =>
    fc.assert(
      fc.property(address, prefix, address, (one, length, noise) => {
        const network = networkOf(one, length);
        expect(network <= one && one <= lastOf(one, length)).toBe(true);
        const host = length === 32 ? 0 : noise % 2 ** (32 - length);
        expect(inNetwork(network + host, one, length)).toBe(true);
      }),
    ));

  test('a subnet is read with its mask in bits or with dots', () => {
    expect(readSubnet('10.1.2.3/8')).toEqual({ ok: true, value: { address: ipNumber('10.1.2.3'), prefix: 8 } });
    expect(readSubnet('192.168.10.0/255.255.255.0')).toMatchObject({ value: { prefix: 24 } });
    expect(readSubnet('10.0.0.0')).toMatchObject({ ok: false, why: expect.stringMatching(/mask’s length/) as string });
    expect(readSubnet('10.0.0/8')).toMatchObject({ ok: false });
  });

  test('bits stand in fours of eight', () =>
    expect(bitsOf(ipNumber('10.0.0.5')!)).toBe('00001010 00000000 00000000 00000101'));

  test.each([
    ['02:7f:f1:12:34:56', 0x00ff, 2, '2.17.52.86'],
    ['02:7f:f1:12:34:56', 0x0102, 10, '10.21.52.86'],
    ['02:7f:f1:ff:00:01', 0x00ff, 2, '2.254.0.1'],
  ] as const)('%s with OEM %i makes %s', (mac, oem, first, expected) =>
    expect(hardwareAddress(mac, oem, first)).toBe(expected),
  );
});

describe('can A reach B?', () => {
  const verdict = (a: Machine, b: Machine, networks: readonly Network[] = []) => canReach(a, b, networks);

  test('it asks the same of both, so the answer is the same from either side', () =>
    fc.assert(
      fc.property(address, prefix, address, prefix, (one, p, other, q) => {
        const [a, b] = [
          { number: one, prefix: p },
          { number: other, prefix: q },
        ];
        expect(addressesReach(a, b)).toBe(addressesReach(b, a));
      }),
    ));

  test('neighbours of one subnet reach each other', () =>
    fc.assert(
      fc.property(address, fc.integer({ min: 1, max: 30 }), fc.nat(), fc.nat(), (network, length, x, y) => {
        const size = 2 ** (32 - length);
        const base = networkOf(network, length);
        const [a, b] = [base + (x % size), base + (y % size)];
        fc.pre(a !== b && a >>> 24 !== 127 && b >>> 24 !== 127);
        expect(verdict(machine('a', [ipText(a), length]), machine('b', [ipText(b), length])).reaches).toBe(true);
      }),
    ));

  test('a wide mask on one side only is a way out without a way back', () => {
    const answer = verdict(machine('Desk', ['10.0.0.5', 8]), machine('Node', ['10.1.0.6', 16]));
    expect(answer.reaches).toBe(false);
    expect(answer.sentence).toBe(
      'Not both ways: Desk finds Node in its network, but by the mask of Node (255.255.0.0) the way back leaves its own.',
    );
    expect(answer.looks.map(({ same, differsAt }) => [same, differsAt])).toEqual([
      [true, 0],
      [false, 16],
    ]);
    expect(explain(answer.looks[1]!)).toMatch(
      /keeps the first 2 numbers.*10\.1\.0\.0 for itself and 10\.0\.0\.0 .* from bit 16/,
    );
  });

  test('two networks, one address twice, no address yet, and itself', () => {
    expect(verdict(machine('a', ['2.0.0.1', 8]), machine('b', ['10.0.0.1', 8])).sentence).toBe(
      'No: a is in network 2.0.0.0, b in 10.0.0.0.',
    );
    expect(verdict(machine('a', ['2.0.0.1', 8]), machine('b', ['2.0.0.1', 8])).sentence).toMatch(
      /both have the address/,
    );
    expect(verdict(machine('a'), machine('b', ['2.0.0.1', 8])).sentence).toMatch(/a has no address yet/);
    expect(verdict(machine('a', ['2.0.0.1', 8]), machine('a', ['2.0.0.1', 8])).sentence).toMatch(
      /always reaches itself/,
    );
  });

  test('a second address is enough', () =>
    expect(verdict(machine('a', ['2.0.0.1', 8], ['10.0.0.1', 8]), machine('b', ['10.0.0.2', 8])).reaches).toBe(true));

  test('loopback reaches nobody, unless the show keeps its stand-ins there', () => {
    const [a, b] = [machine('a', ['127.0.0.1', 8]), machine('b', ['127.0.0.2', 8])];
    expect(verdict(a, b)).toMatchObject({ reaches: false, sentence: expect.stringMatching(/never leaves/) as string });
    expect(verdict(a, b, [standIns]).reaches).toBe(true);
  });
});

describe('plans of addresses', () => {
  const kinds: readonly MachineKind[] = ['node', 'console', 'backup console', 'media server', 'switch', 'computer'];
  const show = (machines: readonly Machine[]) => ({ ...nightFerry(), machine: machines, network: [] });

  test.each(SCHEMES)(
    'the ranges of $network/$prefix lie in it, one behind the other',
    ({ network, prefix: length }) => {
      const ranges = rangesByKind(network, length);
      const base = ipNumber(network)!;
      let before = base;
      for (const { first, last } of ranges) {
        expect(ipNumber(first)! > before).toBe(true);
        expect(ipNumber(last)! >= ipNumber(first)!).toBe(true);
        before = ipNumber(last)!;
        expect(inNetwork(before, base, length)).toBe(true);
      }
      expect(ranges.length).toBe(7);
      expect(before).toBeLessThan(lastOf(base, length));
    },
  );

  test('every machine gets an address of its own, in the range of its kind, and the main console the lowest', () =>
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...kinds), { minLength: 1, maxLength: 60 }),
        fc.constantFrom(...SCHEMES),
        (all, scheme) => {
          const network: Network = {
            ...standIns,
            ...scheme,
            standIn: false,
            ranges: rangesByKind(scheme.network, scheme.prefix),
          };
          const machines = all.map((kind, i): Machine => ({ ...machine(`m${i}`), kind }));
          const plan = fillAddresses(show(machines), network, 'all');
          const crowded = !plan.ok && /finds no room/.test(plan.why);
          fc.pre(!crowded);
          const after = recordsAfter(show(machines), plan.ok ? plan.value.changes : []).machine;
          const numbers = after.map((one) => addressesOf(one)[0]!.number);
          expect(new Set(numbers).size).toBe(all.length);
          after.forEach(({ kind }, i) => {
            const range = network.ranges.find((one) => one.kinds.includes(kind))!;
            expect(ipNumber(range.first)! <= numbers[i]! && numbers[i]! <= ipNumber(range.last)!).toBe(true);
          });
          const console = after.findIndex(({ kind }) => kind === 'console');
          if (console >= 0) expect(numbers[console]).toBe(Math.min(...numbers));
        },
      ),
      { numRuns: 60 },
    ));

  test('only the new: who has an address keeps it, and nobody else gets it', () => {
    const scheme = SCHEMES[1]!;
    const network: Network = {
      ...standIns,
      ...scheme,
      standIn: false,
      ranges: rangesByKind(scheme.network, scheme.prefix),
    };
    const [first] = network.ranges.find(({ label }) => label === 'Nodes')!.first.split(' ');
    const machines = [machine('old', [first!, 8]), machine('new')];
    const plan = fillAddresses(show(machines), network, 'new');
    expect(plan).toMatchObject({ ok: true, value: { lines: [{ subject: 'new', before: 'none' }] } });
    expect(plan.ok && plan.value.lines[0]!.after).not.toContain(`${first} `);
  });

  test('a range without room, and a kind without a range, are said by name', () => {
    const tight: Network = {
      ...standIns,
      ranges: [{ label: 'Nodes', kinds: ['node'], placeId: null, first: '127.0.0.5', last: '127.0.0.5' }],
    };
    expect(fillAddresses(show([machine('a'), machine('b')]), tight, 'all')).toMatchObject({
      why: expect.stringMatching(/Nodes ends at 127\.0\.0\.5; b finds no room/) as string,
    });
    expect(fillAddresses(show([{ ...machine('Helm'), kind: 'console' }]), tight, 'all')).toMatchObject({
      why: expect.stringMatching(/takes a console, which Helm is/) as string,
    });
  });

  test('the sheet stands in the order of addresses and names those without one last', () => {
    const rows = addressSheet(nightFerry());
    expect(rows[0]).toMatchObject({ name: 'Deck switch', address: '127.0.0.11', mask: '255.0.0.0' });
    expect(rows[rows.length - 1]).toMatchObject({ name: 'Purser’s desk', address: '' });
  });
});

describe('a plan of addresses written', () => {
  const range = (first: string, last: string, label = first) => ({ label, kinds: [], placeId: null, first, last });
  const plan = (...ranges: ReturnType<typeof range>[]): Network => ({ ...standIns, rev: 0, ranges });

  test.each([
    [plan(range('127.0.0.9', '127.0.0.5', 'Nodes')), 'The range Nodes ends before it begins.'],
    [plan(range('10.0.0.1', '10.0.0.5')), 'The range 10.0.0.1 lies outside 127.0.0.0/8.'],
    [plan(range('127.0.0.1', '127.0.0.9', 'A'), range('127.0.0.9', '127.0.0.12', 'B')), 'The ranges A and B overlap.'],
    [{ ...plan(), name: '' }, 'The name of the address plan is missing.'],
  ])('%# is refused in a sentence', (network, why) =>
    expect(putNetwork(undefined, network)).toMatchObject({ ok: false, why }),
  );

  test('a good one is written with its ranges told', () =>
    expect(putNetwork(undefined, plan(range('127.0.0.1', '127.0.0.9', 'Nodes')))).toMatchObject({
      ok: true,
      value: {
        sentence: 'Added the address plan Bench',
        lines: expect.arrayContaining([
          { subject: 'Bench, ranges', before: '', after: 'Nodes 127.0.0.1 to 127.0.0.9' },
        ]) as unknown,
      },
    }));
});

describe('what stands against the interface in use', () => {
  const iface = (over: Partial<InterfaceInfo>): InterfaceInfo => ({
    name: 'eth0',
    address: '10.0.0.5',
    netmask: '255.0.0.0',
    mac: '',
    loopback: false,
    medium: 'wired',
    up: true,
    ...over,
  });
  const lighting: Network = { ...standIns, network: '10.0.0.0', standIn: false };
  const said = (one: InterfaceInfo | null, networks: readonly Network[] = [lighting]) =>
    interfaceWarnings(one, 'sACN', { machine: [machine('Node')], network: networks });

  test('nothing, when it is wired, up and in the plan', () => expect(said(iface({}))).toEqual([]));
  test.each([
    [null, /No interface is in use for sACN/],
    [iface({ up: false }), /eth0 is down/],
    [iface({ medium: 'wireless' }), /is wireless/],
    [iface({ address: '192.0.2.1' }), /lies in no plan of addresses/],
  ])('%j', (one, sentence) => {
    expect(said(one)).toHaveLength(1);
    expect(said(one)[0]).toMatch(sentence);
  });
  test('loopback only matters when machines are elsewhere', () => {
    const lo = iface({ address: '127.0.0.1', loopback: true, medium: 'loopback' });
    expect(said(lo, [standIns])).toEqual([]);
    expect(said(lo, [standIns, lighting]).join()).toMatch(/reaches this computer alone/);
  });
});
