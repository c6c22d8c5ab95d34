import { wireKey } from '../address';
import type { NodeReport } from '../node';
import type { StreamReport } from '../stream';
import { nightFerry } from '../demo';
import { recordsAfter } from '../edit';
import { sendersOf } from '../flow';
import type { Link, Machine, ShowRecords } from '../records';
import { doctor, linkedUniverses, proposeLines, receiverWire, shownAs, type LinkHeard } from '.';

const ferry = nightFerry();
const link = ferry.link.find(({ id }) => id === 'link-bridge-artnet')!;
const bridge = sendersOf(ferry.machine).find(({ name }) => name === 'Bridge desk')!;

const stream = (over: Partial<StreamReport> = {}) =>
  ({ name: 'Bridge desk', address: '127.0.0.21', own: false, lost: false, firstSeen: 0, ...over }) as StreamReport;
/** Everything that the links of the demo show bring by Art-Net, and the same one beside */
const LISTENS = Array.from({ length: 30 }, (_, i) => 8 + i);
const shifted = LISTENS.map((number) => number + 1);
const crow = (over: Partial<NodeReport> = {}, listens = LISTENS) =>
  ({
    address: '127.0.0.24',
    shortName: 'Crow’s nest',
    gone: false,
    firstSeen: 0,
    ports: listens.map((portAddress) => ({ direction: 'out', sacn: false, portAddress })),
    ...over,
  }) as unknown as NodeReport;
const live = (
  nodes: NodeReport[] = [crow()],
  streams: StreamReport[] = [stream()],
  universes = [8, 9, 10, 11],
): LinkHeard =>
  ({
    listeningSince: 0,
    nodes,
    universes: universes.map((number) => ({ key: wireKey({ protocol: 'artnet', number }), streams })),
  }) as unknown as LinkHeard;

const found = (one: Link = link, now = live(), records: ShowRecords = ferry) =>
  Object.fromEntries(doctor(one, records, now).map((line) => [line.name, line]));
const notFine = (lines: Record<string, { state: string }>) =>
  Object.entries(lines).flatMap(([name, { state }]) => (state === 'fine' ? [] : [name]));
const withMachine = (id: string, over: Partial<Machine>): ShowRecords => ({
  ...ferry,
  machine: ferry.machine.map((one) => (one.id === id ? { ...one, ...over } : one)),
});

test('nothing is wrong with the links of the demo show while all is well', () => {
  expect(notFine(found())).toEqual([]);
  expect(Object.keys(found())).toHaveLength(9);
});

test('one link’s numbers, moved by one, may be its neighbour’s: the base is still told', () => {
  const porthole = ferry.link.find(({ id }) => id === 'link-porthole')!;
  const now = live([crow({}, shifted)]);
  expect(doctor(porthole, ferry, now).find(({ name }) => name === 'base')).toMatchObject({
    says: 'Crow’s nest listens one above what is sent: it is off by one.',
  });
  // Pixels are fed as lamps are.
  expect(doctor(porthole, ferry, now).find(({ name }) => name === 'enough')).toMatchObject({
    says: 'All 26 that it sends by Art-Net and that feed lamps.',
  });
});

test('what cannot be seen is asked, and is well once a person has said so', () => {
  const asked = found({ ...link, well: [] });
  expect(notFine(asked)).toEqual(['order']);
  expect(asked['order']).toMatchObject({ state: 'ask' });
  expect(notFine(found({ ...link, well: ['order'] }))).toEqual([]);
});

test('a base that differs is told as off by one, in the plan with its repair, on the wire with its mend', () => {
  const planned = found({ ...link, receiverBase: 0 });
  expect(planned['base']).toMatchObject({
    state: 'must fix',
    says: 'Art-Net 0.0.8 is sent and Art-Net 0.0.9 is listened to: off by 1.',
  });
  const mended = recordsAfter(
    { ...ferry, link: [{ ...link, receiverBase: 0 }] },
    planned['base']!.repair!.plan.changes,
  );
  expect(notFine(found(mended.link[0]!))).toEqual([]);
  expect(found(link, live([crow({}, shifted)]))['base']).toMatchObject({
    says: 'Crow’s nest listens one above what is sent: it is off by one.',
    mend: 'Set Crow’s nest to count from 1.',
  });
});

test.each([
  ['interface', link, live([crow({ address: '127.0.0.124' })]), ferry, /answers from 127\.0\.0\.124; planned is 127/],
  ['interface', link, live([crow()], [stream({ address: '10.0.0.5' })]), ferry, /sends from 10\.0\.0\.5/],
  ['protocol', link, live([crow()], []), ferry, /Nothing of Bridge desk is heard by Art-Net/],
  ['universes', link, live([crow()], [stream()], [8, 9]), ferry, /2 of 4 are not heard from Bridge desk: 11-12/],
  [
    'enough',
    { ...link, lines: [{ from: 9, count: 3, to: 9 }] },
    live(),
    ferry,
    /12 feeds lamps and is not in this link/,
  ],
  ['together', link, live(), withMachine('machine-bridge', { interfaces: [] }), /has no address yet/],
  [
    'mask',
    link,
    live(),
    withMachine('machine-crow', {
      interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed', address: '127.0.0.24', prefix: 24 }] }],
    }),
    /the masks differ/,
  ],
  ['order', link, live([crow({ firstSeen: 20_000 })], [stream({ firstSeen: 50_000 })]), ferry, /there 30 s before/],
] as const)('%s', (name, one, now, records, says) => {
  const line = found(one, now, records)[name];
  expect(line).toMatchObject({ state: 'must fix', says: expect.stringMatching(says) as string });
  expect(line!.mend).not.toBe('');
});

test('a sender that looks for receivers is to be started second', () => {
  const visualiserFirst: Link = { ...link, startsFirst: 'visualiser', well: [] };
  const early = live([crow({ firstSeen: 20_000 })], [stream({ firstSeen: 50_000 })]);
  expect(found(visualiserFirst, early)['order']).toMatchObject({
    state: 'fine',
    says: 'Crow’s nest was heard before Bridge desk.',
  });
  const late = live([crow({ firstSeen: 50_000 })], [stream({ firstSeen: 20_000 })]);
  expect(found(visualiserFirst, late)['order']).toMatchObject({
    state: 'must fix',
    title: 'The sender was started after the visualiser',
    says: 'Bridge desk sent 30 s before Crow’s nest was there.',
    mend: expect.stringMatching(/^Start Bridge desk again/) as string,
  });
  expect(found({ ...visualiserFirst, startsFirst: 'either' }, late)['order']).toMatchObject({ state: 'fine' });
});

test('a visualiser that does not answer at all is asked about', () =>
  expect(notFine(found({ ...link, well: [] }, live([])))).toEqual(['interface', 'order', 'firewall']));

test('proposed are all universes that the sender sends by the protocol, one to one', () => {
  expect(proposeLines(bridge, 'sacn', ferry.universe)).toEqual([{ from: 1, count: 8, to: 1 }]);
  expect(proposeLines(bridge, 'artnet', ferry.universe)).toEqual([{ from: 9, count: 4, to: 9 }]);
  for (const one of ferry.link) {
    const sender = sendersOf(ferry.machine).find(({ id }) => id === one.senderId)!;
    for (const { sent, heard } of linkedUniverses(one, sender, ferry.universe)) expect(heard).toEqual(sent);
  }
});

test('Art-Net numbers of a display are counted from its base; sACN has one counting', () => {
  expect(receiverWire({ ...link, receiverBase: 1 }, 9)).toEqual({ protocol: 'artnet', number: 8 });
  expect(shownAs({ protocol: 'artnet', number: 8 }, 1)).toBe(9);
  expect(shownAs({ protocol: 'sacn', number: 8 }, 1)).toBe(8);
  expect(receiverWire({ ...link, protocol: 'sacn', receiverBase: 0 }, 9)).toEqual({ protocol: 'sacn', number: 9 });
});
