import { wireKey } from '../../base/address';
import type { NodeReport } from '../../network/node';
import type { StreamReport } from '../../signal/stream';
import { nightFerry } from '../../whole/demo';
import { recordsAfter } from '../../show/edit';
import { sendersOf } from '../../network/flow';
import type { Link, Machine, ShowRecords, Sighting } from '../../show/records';
import { arrivesSurely, doctor, linkedUniverses, proposeLines, receiverWire, shownAs, type LinkHeard } from '.';

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
    ports: listens.map((portAddress) => ({ direction: 'out', sacn: false, portAddress, active: true })),
    ...over,
  }) as unknown as NodeReport;
/** One that says that nothing comes in. */
const darkCrow = (over: Partial<NodeReport> = {}): NodeReport => {
  const one = crow(over);
  return { ...one, ports: one.ports.map((port) => ({ ...port, active: false })) };
};
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
  Object.entries(lines).flatMap(([name, { state }]) => (state === 'fine' || state === 'planned' ? [] : [name]));
const withMachine = (id: string, over: Partial<Machine>): ShowRecords => ({
  ...ferry,
  machine: ferry.machine.map((one) => (one.id === id ? { ...one, ...over } : one)),
});

/** What a person answered to one of the doctor's questions. */
const answered = (question: string, over: Partial<Sighting> = {}): ShowRecords => ({
  ...ferry,
  sighting: [
    {
      id: question,
      rev: 5,
      about: { kind: 'link', id: link.id, part: '' },
      question,
      answer: 'yes',
      by: 'Ada',
      at: '2026-11-26T08:00:00.000Z',
      ...over,
    },
  ],
});

test('while all is well nothing is wrong, what only the plan says is not called fine, and one question is open', () => {
  const states = Object.values(found()).map(({ name, state, known }) => [name, state, known]);
  expect(states).toEqual([
    ['together', 'planned', 'worked out'],
    ['mask', 'planned', 'worked out'],
    ['interface', 'fine', 'said'],
    ['protocol', 'fine', 'heard'],
    ['universes', 'fine', 'heard'],
    ['base', 'fine', 'said'],
    ['enough', 'planned', 'worked out'],
    ['order', 'ask', 'not known'],
    ['firewall', 'fine', 'said'],
    ['arrives', 'fine', 'said'],
  ]);
  expect(arrivesSurely(doctor(link, ferry, live()))).toBe(false);
  expect(arrivesSurely(doctor(link, answered('order'), live()))).toBe(true);
});

test('a visualiser that says that nothing comes in is not fine, whatever is on the wire', () => {
  const deaf = crow();
  const ports = deaf.ports.map((port) => ({ ...port, active: port.portAddress !== 10 }));
  const line = found(link, live([{ ...deaf, ports }]))['arrives'];
  expect(line).toMatchObject({
    state: 'must fix',
    known: 'said',
    says: expect.stringMatching(/nothing comes in for 11\.$/),
  });
  expect(arrivesSurely(doctor(link, answered('order'), live([{ ...deaf, ports }])))).toBe(false);
});

test('whether sACN arrives only a person can tell, and none ships answered', () => {
  const sacn = ferry.link.find(({ protocol }) => protocol === 'sacn')!;
  expect(doctor(sacn, ferry, live()).find(({ name }) => name === 'arrives')).toMatchObject({
    state: 'ask',
    known: 'not known',
  });
  expect(ferry.sighting).toEqual([]);
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

test('what cannot be seen is asked, and is well once a person has said so, until its path changes', () => {
  expect(found()['order']).toMatchObject({ state: 'ask', known: 'not known' });
  expect(found(link, live(), answered('order'))['order']).toMatchObject({
    state: 'fine',
    known: 'seen',
    says: 'Ada looked, and found it well.',
  });
  expect(found(link, live(), answered('order', { answer: 'no' }))['order']).toMatchObject({
    state: 'must fix',
    known: 'seen',
  });
  const changed = answered('order');
  const machine = changed.machine.map((one) => (one.id === 'machine-crow' ? { ...one, rev: 6 } : one));
  expect(found(link, live(), { ...changed, machine })['order']).toMatchObject({
    state: 'ask',
    says: expect.stringMatching(/^Ada found it well; since then Crow’s nest changed\./) as string,
  });
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
  expect(notFine(found(mended.link[0]!))).toEqual(['order']);
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
  ['order', link, live([darkCrow({ firstSeen: 20_000 })], [stream({ firstSeen: 50_000 })]), ferry, /there 30 s before/],
] as const)('%s', (name, one, now, records, says) => {
  const line = found(one, now, records)[name];
  expect(line).toMatchObject({ state: 'must fix', says: expect.stringMatching(says) as string });
  expect(line!.mend).not.toBe('');
});

test('a sender that looks for receivers is to be started second', () => {
  const visualiserFirst: Link = { ...link, startsFirst: 'visualiser' };
  const early = live([crow({ firstSeen: 20_000 })], [stream({ firstSeen: 50_000 })]);
  expect(found(visualiserFirst, early)['order']).toMatchObject({
    state: 'fine',
    says: 'Crow’s nest was heard before Bridge desk.',
  });
  const late = live([darkCrow({ firstSeen: 50_000 })], [stream({ firstSeen: 20_000 })]);
  expect(found(visualiserFirst, late)['order']).toMatchObject({
    state: 'must fix',
    title: 'The sender was started after the visualiser',
    says: 'Bridge desk sent 30 s before Crow’s nest was there.',
    mend: expect.stringMatching(/^Start Bridge desk again/) as string,
  });
  expect(found({ ...visualiserFirst, startsFirst: 'either' }, late)['order']).toMatchObject({ state: 'planned' });
});

test('the order of starting matters only where a picture is missing: else it is no fault, or a question', () => {
  const late = live([crow({ firstSeen: 20_000 })], [stream({ firstSeen: 50_000 })]);
  expect(found(link, late)['order']).toMatchObject({
    state: 'fine',
    known: 'said',
    says: expect.stringMatching(/The picture is there anyway\.$/) as string,
  });
  const unheard = live([crow({ firstSeen: 20_000, ports: [] })], [stream({ firstSeen: 50_000 })]);
  expect(found(link, unheard)['order']).toMatchObject({ state: 'ask', known: 'not known' });
});

test('a visualiser that does not answer at all is asked about', () =>
  expect(notFine(found(link, live([])))).toEqual(['interface', 'order', 'firewall', 'arrives']));

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

test('what the visualiser says of its lamps is a line of its own, and only once it has said all of it', () => {
  const said = {
    name: 'Elsewhere',
    address: '127.0.0.24',
    lamps: 420,
    whole: true,
    patchAt: 5,
    differ: [] as number[],
  };
  const line = (...all: (typeof said)[]) => doctor(sacnLink, ferry, live(), all).find(({ name }) => name === 'lamps');
  const sacnLink = ferry.link.find(({ id }) => id === 'link-bridge-sacn')!;
  expect(line()).toBeUndefined();
  expect(line({ ...said, whole: false })).toBeUndefined();
  expect(line({ ...said, address: '127.0.0.99' })).toBeUndefined();
  expect(line(said)).toMatchObject({
    state: 'fine',
    known: 'said',
    says: expect.stringMatching(/^Elsewhere says that the \d+ lamps of this link lie as planned\.$/),
  });
  expect(line({ ...said, differ: [101, 102] })).toMatchObject({
    ...{ state: 'must fix', known: 'said', says: 'Elsewhere says otherwise of 2 lamps: 101, 102.' },
  });
  // Lamps of other links, and lamps that the show does not have, are no fault of this one.
  expect(line({ ...said, differ: [381, 9999] })).toMatchObject({ state: 'fine' });
  const pixels = ferry.link.find(({ id }) => id === 'link-porthole')!;
  expect(doctor(pixels, ferry, live(), [said]).some(({ name }) => name === 'lamps')).toBe(false);
});
