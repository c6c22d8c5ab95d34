/** What checks find in shows made for it: addresses, numbers, loads and loops. */
import fc from 'fast-check';
import { plainPort } from '../../network/machine';
import { recordsAfter } from '../../show/edit';
import { PLAIN_INPUT, PLAIN_ROUTE, type ShowRecords, type SendLine } from '../../show/records';
import { linkLoad, networkConsequences, networkFindings, networkRepairs } from '.';
import { at, iface, machine, show, desk, sends, lamps, carries, RAISED, node, backup, line } from './testing/shows';

test('what a plan would bring is told before it is written', () => {
  const node = machine('Node', [iface(at('10.0.0.2'))]);
  const worse = { ...node, interfaces: [iface(at('10.0.0.1'))] };
  const plan = { sentence: '', changes: [{ kind: 'machine', id: node.id, rev: 1, after: worse }], lines: [] } as const;
  expect(networkConsequences(show([desk, node]), plan).map(({ rule }) => rule)).toEqual(['same address']);
});

test('machines with addresses of their own in one subnet are never found fault with', () =>
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 0xfffffe }), { minLength: 1, maxLength: 40 }), (hosts) => {
      const machines = hosts.map((host, i) =>
        machine(`m${i}`, [iface(at(`10.${host >> 16}.${(host >> 8) & 255}.${host & 255}`))]),
      );
      expect(networkFindings(show(machines))).toEqual([]);
    }),
  ));

test('an address given twice is always found, whoever has it', () =>
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 30 }), fc.nat(), fc.nat(), (count, x, y) => {
      const [a, b] = [x % count, y % count];
      fc.pre(a !== b);
      const machines = Array.from({ length: count }, (_, i) =>
        machine(`m${i}`, [iface(at(`10.0.1.${(i === b ? a : i) + 1}`))]),
      );
      const found = networkFindings(show(machines));
      expect(found.map(({ rule }) => rule)).toEqual(['same address']);
      expect([...found[0]!.subjects].sort()).toEqual([`m${a}`, `m${b}`].sort());
    }),
  ));

test('a port one beside what is sent is told as bases mixed up, with the shift, and turned', () => {
  const records = show([node, machine('Far', [], carries(4))], { senders: [sends('Desk', [1, 3])], lamp: lamps(3) });
  const finding = networkFindings(records).find(({ rule }) => rule === 'nothing sent to the port')!;
  expect(finding.sentence).toBe(
    'Far, port 1, carries universe 4, which nobody sends; universe 3 is sent and reaches no port. One of them counts from 1 and the other from 0: it is off by one.',
  );
  const [turn] = networkRepairs(records, finding);
  expect(turn!.label).toBe('Turn it to universe 3');
  expect(networkFindings(recordsAfter(records, turn!.plan.changes))).toEqual([]);
});

test('a backup may send what the main console sends, as long as it is lower', () => {
  const both = (priority: number) =>
    show([node, desk, backup], { senders: [sends('Aft', [1], priority), sends('Desk', [1], 100)] });
  expect(networkFindings(both(90))).toEqual([]);
  expect(networkFindings(both(120)).map(({ sentence }) => sentence)).toEqual([
    'Aft is the backup and sends universe 1 at priority 120, not below the 100 of Desk.',
  ]);
});

test('an input sends too', () => {
  const ports = [{ ...plainPort(1, 9, 'artnet'), use: 'in' as const }, plainPort(2, 9, 'artnet')];
  const through = machine('Through', [], { ports });
  expect(networkFindings(show([through]))).toEqual([]);
});

test('a whole line one beside the plan is told as bases mixed up; another protocol as such', () => {
  const says = (to: SendLine['to']) =>
    networkFindings(show([node], { senders: [line({ to })] })).map(({ sentence }) => sentence);
  expect(says({ protocol: 'sacn', number: 2 })[0]).toMatch(
    /planned is sACN 1\. One of them counts from 0.*off by one\.$/,
  );
  expect(says({ protocol: 'sacn', number: 9 })[0]).toMatch(/the show plans universe 1 as sACN 1\.$/);
  expect(says({ protocol: 'artnet', number: 0 })[0]).toMatch(/the show plans universe 1 by sACN\.$/);
  expect(says({ protocol: 'sacn', number: 1 })).toEqual([]);
});

test('the load of a link is shown with its arithmetic', () => {
  const [finding] = networkFindings(RAISED['load of a link']!);
  // 400 universes × 44 Hz × 704 bytes × 8 = 99.1 Mbit/s
  expect(finding!.sentence).toContain('99 Mbit/s in 17600 packets a second');
  expect(finding!.evidence).toEqual(['400 × 44 Hz × 704 bytes × 8']);
});

test('a quicker connector carries the same, and what it carries is told of any machine', () => {
  const records = RAISED['load of a link']!;
  const [hub] = records.machine;
  const quick = {
    ...records,
    machine: records.machine.map((one) => (one.id === hub!.id ? { ...one, modelId: 'gigabit' } : one)),
  };
  expect(networkFindings(quick).some(({ rule }) => rule === 'load of a link')).toBe(false);
  expect(linkLoad(quick, quick.machine[0]!)).toEqual({
    sum: '17600 packets a second, 99 of 1000 Mbit/s',
    terms: ['400 × 44 Hz × 704 bytes × 8'],
  });
  expect(linkLoad(quick, machine('Unused', []))).toBeUndefined();
});

test('a sender by unicast pays for each that it sends to, by multicast once', () => {
  const takers = ['A', 'B', 'C'].map((name, i) => machine(name, [iface(at(`10.0.0.${i + 2}`))], carries(1)));
  const sum = (over: Partial<SendLine>) => {
    const records = show([desk, ...takers], { senders: [line(over)] });
    return linkLoad(records, desk)!.sum.split(' packets')[0];
  };
  expect(sum({ rate: 40 })).toBe('40');
  expect(sum({ rate: 40, delivery: 'unicast', addresses: takers.map((_, i) => `10.0.0.${i + 2}`) })).toBe('120');
  // Art-Net goes to each that lists the universe, unless it is broadcast.
  expect(sum({ rate: 40, to: { protocol: 'artnet', number: 0 } })).toBe('120');
  expect(sum({ rate: 40, to: { protocol: 'artnet', number: 0 }, delivery: 'broadcast' })).toBe('40');
});

test('what goes in and comes out again through routes is found, however many lie between', () => {
  const wire = (number: number) => ({ protocol: 'sacn' as const, number });
  const route = (from: number, to: number) => ({
    ...PLAIN_ROUTE,
    id: `r${from}`,
    rev: 1,
    name: `r${from}`,
    order: from,
    inputs: [{ ...PLAIN_INPUT, wire: wire(from) }],
    out: wire(to),
  });
  const inlet = machine('Inlet', [iface(at('10.0.0.7'))], { ports: [{ ...plainPort(1, 1), use: 'in' }] });
  const outlet = machine('Outlet', [iface(at('10.0.0.8'))], carries(3));
  const found = (routes: ShowRecords['route']) =>
    networkFindings(show([inlet, outlet], { senders: [sends('Desk', [1, 3])], route: routes })).filter(
      ({ rule }) => rule === 'fed back',
    );
  expect(found([])).toEqual([]);
  expect(found([route(1, 2), route(2, 3)])[0]?.sentence).toMatch(
    /If its cable comes from Outlet, port 1, it feeds itself/,
  );
});

test('a route sends too', () => {
  const records = show([machine('Node', [], carries(2))], { senders: [], lamp: lamps(2) });
  const route = {
    ...PLAIN_ROUTE,
    id: 'r',
    rev: 1,
    name: 'r',
    order: 1,
    inputs: [{ ...PLAIN_INPUT, wire: { protocol: 'sacn' as const, number: 7 } }],
    out: { protocol: 'sacn' as const, number: 2 },
  };
  expect(networkFindings(records).length).toBeGreaterThan(0);
  expect(networkFindings({ ...records, route: [route] })).toEqual([]);
});
