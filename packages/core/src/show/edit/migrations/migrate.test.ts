import { nightFerry } from '../../../whole/demo';
import { checkRecord, KINDS, type Kind, type ShowRecords } from '../../records';
import { applyChanges, inverseOf, refuseChanges, settleChanges, toMaps, toRecords, type Edit } from '..';
import { HistoryUpgrade, RECORD_VERSION, upgradeShow, type Loose, type LooseShow, type StoredEdit } from '.';
import { emptyShow } from '../../records';

const MACHINE_1 = {
  id: 'm',
  rev: 3,
  name: 'Old node',
  model: 'Marram Quad 4',
  address: '127.0.0.31',
  placeId: null,
  ports: [{ number: 1, direction: 'out', protocol: 'sacn', universe: 7 }],
};
const SOURCE_1 = {
  id: 's',
  rev: 2,
  name: 'Desk',
  address: '127.0.0.21',
  universes: [1, 2, 3, 9, 9, 11, 10],
  priority: 120,
  pennant: { letter: 'D', cut: 'square', fill: 'plain' },
};
const up = (records: LooseShow, from = 1) => upgradeShow(records, from) as Record<string, Record<string, unknown>[]>;

function checkAll(records: LooseShow): void {
  for (const [kind, all] of Object.entries(records))
    for (const record of all) {
      const checked = checkRecord(kind as Kind, record);
      expect([kind, checked.ok ? '' : checked.why]).toEqual([kind, '']);
    }
}

test('a machine of the first version keeps its address, its ports and its model in words', () => {
  const driver = {
    ...MACHINE_1,
    id: 'd',
    address: '',
    ports: [],
    controller: { firstUniverse: 1, universes: 1, outputs: 1, channelsPerOutput: 1 },
  };
  const now = up({ machine: [MACHINE_1, driver] });
  checkAll(now);
  expect(now['machine']).toMatchObject([
    {
      kind: 'node',
      notes: 'Marram Quad 4',
      interfaces: [{ addresses: [{ way: 'fixed', address: '127.0.0.31', prefix: 8 }] }],
      ports: [{ number: 1, use: 'out', universe: 7, merge: 'htp' }],
      sends: null,
    },
    { kind: 'pixel controller', interfaces: [{ addresses: [] }] },
  ]);
});

test('a sender without a machine becomes one, its universes lines at its priority', () => {
  const now = up({ source: [SOURCE_1] });
  checkAll(now);
  expect(now['machine']).toMatchObject([
    {
      id: 's',
      name: 'Desk',
      kind: 'console',
      interfaces: [{ addresses: [{ address: '127.0.0.21' }] }],
      sends: {
        lines: [
          { from: 1, count: 3, priority: 120 },
          { from: 9, count: 3, priority: 120 },
        ],
      },
    },
  ]);
  expect(now['source']).toBeUndefined();
});

test.each([
  ['by its name', { name: 'Desk', address: '127.0.0.50' }, ['127.0.0.50', '127.0.0.21'], ''],
  ['by its address', { name: 'Console', address: '127.0.0.21' }, ['127.0.0.21'], 'Was planned as the sender Desk.'],
])('a sender joins the machine that it was %s', (_, over, addresses, note) => {
  const now = up({ machine: [{ ...MACHINE_1, model: '', ...over }], source: [SOURCE_1] });
  checkAll(now);
  const [machine] = now['machine']!;
  expect(machine).toMatchObject({ id: 'm', notes: note, sends: { pennant: { letter: 'D' } } });
  const [{ addresses: its }] = machine!['interfaces'] as [{ addresses: { address: string }[] }];
  expect(its.map(({ address }) => address)).toEqual(addresses);
});

test('two senders of one machine both stand in it; a desk on a cable gets no address', () => {
  const now = up(
    {
      machine: [{ ...to3Machine('Purser’s desk'), kind: 'DMX desk', interfaces: [] }],
      source: [
        { ...SOURCE_1, name: 'Purser’s desk', address: '127.0.0.34' },
        { ...SOURCE_1, id: 's2', name: 'Purser’s desk', address: '', universes: [40] },
      ],
    },
    3,
  );
  checkAll(now);
  expect(now['machine']).toMatchObject([
    { interfaces: [], sends: { lines: [{ from: 1 }, { from: 9 }, { from: 40, count: 1 }] } },
  ]);
});

const to3Machine = (name: string): Loose => ({
  ...(up({ machine: [{ ...MACHINE_1, name, address: '' }] }, 1)['machine']![0] as Loose),
  sends: undefined,
});

test('links name machines at both ends', () => {
  const link = {
    id: 'l',
    rev: 1,
    name: 'Desk to screen',
    sourceId: 's',
    machineId: 'm',
    protocol: 'artnet',
    senderBase: 0,
    receiverBase: 1,
    lines: [],
    well: ['firewall'],
  };
  const now = up({ machine: [{ ...MACHINE_1, name: 'Screen' }], source: [SOURCE_1], link: [link] });
  checkAll(now);
  expect(now['link']).toMatchObject([{ senderId: 's', visualiserId: 'm', startsFirst: 'sender' }]);
  // What was answered stays, as a sighting of whom nobody knows.
  expect(now['sighting']).toMatchObject([
    { about: { kind: 'link', id: 'l' }, question: 'firewall', answer: 'yes', by: '' },
  ]);
});

test('what is of version 6 already keeps its senders and links', () => {
  const sends = { lines: [{ from: 1, count: 8 }], pennant: { letter: 'B' } };
  const link = { id: 'l', rev: 2, senderId: 'm', visualiserId: 'n', well: ['order'] };
  const now = upgradeShow({ machine: [{ id: 'm', rev: 1, interfaces: [], sends }], link: [link] }, 5);
  expect(now['machine']).toMatchObject([{ id: 'm', sends }]);
  expect(now['link']).toEqual([{ id: 'l', rev: 2, senderId: 'm', visualiserId: 'n' }]);
  expect(now['sighting']).toMatchObject([{ question: 'order', rev: 2 }]);
});

describe('a history', () => {
  const stored = (seq: number, ...changes: StoredEdit['changes']): StoredEdit => ({
    seq,
    at: '',
    author: 'Ada',
    sentence: `${seq}`,
    changes,
  });
  const put = (kind: string, before: Loose | null, after: Loose | null) => ({
    kind,
    id: (after ?? before)!['id'] as string,
    before,
    after,
  });
  const source = { ...SOURCE_1, rev: 1 };
  const priority = { ...source, rev: 2, priority: 90 };
  const machine = { ...MACHINE_1, rev: 3, name: 'Desk', model: '' };
  const renamed = { ...machine, rev: 4, name: 'Stern' };
  const HISTORY = [
    stored(1, put('source', null, source)),
    stored(2, put('source', source, priority)),
    stored(3, put('machine', null, machine)),
    stored(4, put('machine', machine, renamed)),
    stored(5, put('source', priority, null)),
  ];

  /** Carried out from nothing: each edit fits on the one before, and the show holds together after each. */
  function played(history: readonly Edit[]): ShowRecords {
    const maps = toMaps(emptyShow());
    for (const { changes } of history) {
      for (const { kind, id, before } of changes)
        expect([kind, id, maps[kind].get(id) ?? null]).toEqual([kind, id, before]);
      expect(refuseChanges(maps, changes)).toBeUndefined();
      applyChanges(maps, changes);
    }
    return toRecords(maps);
  }

  const upgraded = () => {
    const upgrade = new HistoryUpgrade();
    return HISTORY.map((edit) => upgrade.next(edit));
  };

  test('is one that could have been written today, and ends as the show does that it led to', () => {
    const now = upgraded();
    const after = [1, 2, 3, 4].map((count) => played(now.slice(0, count)).machine);
    expect(after[0]).toMatchObject([{ id: 's', sends: { lines: [{ priority: 120 }, { priority: 120 }] } }]);
    expect(after[1]).toMatchObject([{ id: 's', rev: 2, sends: { lines: [{ priority: 90 }, { priority: 90 }] } }]);
    // The machine of that name took the sender in, and let it go again when it was renamed.
    expect(after[2]).toMatchObject([{ id: 'm', rev: 3, sends: { lines: [{ priority: 90 }, { priority: 90 }] } }]);
    expect(after[3]!.map(({ id, sends }) => [id, sends !== null])).toEqual([
      ['m', false],
      ['s', true],
    ]);
    expect(played(now).machine).toMatchObject([{ id: 'm', name: 'Stern', sends: null }]);
  });

  test('can be taken back to its beginning', () => {
    const now = upgraded();
    const maps = toMaps(played(now));
    [...now].reverse().forEach((edit, i) => applyChanges(maps, settleChanges(maps, inverseOf(edit, maps), 10 + i)));
    expect(toRecords(maps)).toEqual(emptyShow());
  });

  test('what is of today stays as it is', () => {
    const today: StoredEdit = {
      ...stored(
        9,
        ...KINDS.flatMap((kind) => nightFerry()[kind].map((one) => put(kind, null, one as unknown as Loose))),
      ),
      v: RECORD_VERSION,
    };
    const { v: _, ...edit } = today;
    expect(new HistoryUpgrade().next(today)).toEqual(edit);
    expect(upgradeShow(nightFerry() as unknown as LooseShow, RECORD_VERSION)).toEqual(nightFerry());
  });
});
