/** What is sent for slots that are taken: when, in which order, with what around it, and how it ends. */
import { wireKey } from '@taxiarch/core/base/address';
import { type ArtDmx, decodeArtNet } from '@taxiarch/core/protocol/artnet';
import { decodeSacn, type SacnData } from '@taxiarch/core/protocol/sacn';
import { Output, type OutputSettings } from './output';

const CID = new Uint8Array(16).fill(4);
const SACN = wireKey({ protocol: 'sacn', number: 7 });
const ARTNET = wireKey({ protocol: 'artnet', number: 0x12 });

interface World {
  readonly broadcast?: string;
  readonly own?: string;
  ltp?: boolean;
}

function begin(settings: Partial<OutputSettings> = {}, world: World = {}) {
  const sacn: SacnData[] = [];
  const artnet: { to: string; dmx: ArtDmx }[] = [];
  const taken = new Map<number, Uint8Array>();
  const others = new Uint8Array(512);
  const all = { rate: 44, priority: 150, broadcast: false, sync: 0, artSync: false, ...settings };
  const output = new Output(CID, all, {
    levelsOfOthers: () => others,
    setTaken: (key, mask) => taken.set(key, mask),
    sendSacn: (bytes, universe) => {
      const read = decodeSacn(bytes);
      if (!read.ok || read.value.kind !== 'data') throw new Error('no data');
      expect(read.value.universe).toBe(universe);
      sacn.push({ ...read.value, slots: read.value.slots.slice() });
    },
    sendArtNet: (bytes, to) => {
      const read = decodeArtNet(bytes);
      if (!read.ok || read.value.kind !== 'dmx') throw new Error('no data');
      artnet.push({ to, dmx: { ...read.value, slots: read.value.slots.slice() } });
    },
    artnetTargets: () => ({ addresses: ['10.0.0.31', '10.0.0.32'], ltp: world.ltp ?? false }),
    broadcastAddress: () => world.broadcast,
    ownAddress: () => world.own,
  });
  const take = (key: number, levels: [number, number | null][], client = 'a', stay = false) =>
    output.take({ client, by: `Person ${client}`, stay, universes: [{ key, show: 3, levels }] }, 1000);
  /** What leaves at these times; the first byte of a packet with levels, “p” for one with priorities. */
  const at = (...times: number[]) =>
    times.map((now) => {
      sacn.length = 0;
      artnet.length = 0;
      output.tick(now);
      return [
        ...sacn.map(({ startCode, slots }) => (startCode === 0xdd ? 'p' : slots[0])),
        ...artnet.map(({ dmx }) => dmx.slots[0]),
      ];
    });
  return { output, sacn, artnet, taken, others, take, at };
}

test('while safe nothing is taken and nothing leaves', () => {
  const { output, take, at } = begin();
  expect(take(SACN, [[0, 255]])).toMatch(/^Taxiarch is safe/);
  output.makeHot('Mara', 5);
  output.makeSafe();
  expect([output.isHot, output.report(0).by, output.report(0).since]).toEqual([false, '', 0]);
  expect(at(0)).toEqual([[]]);
});

test('who made it hot first is said, from then on', () => {
  const { output } = begin();
  output.makeHot('Mara', 5);
  output.makeHot('Ivo', 9);
  expect(output.report(30)).toMatchObject({ hot: true, by: 'Mara', since: 5, rate: 30 });
});

describe('when it is sent', () => {
  test('priorities first, then levels; three more, then every 900 ms with priorities', () => {
    const { output, take, at } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[0, 9]]);
    expect(at(0, 20, 40, 60, 80, 959, 960, 980, 1859, 1860)).toEqual([
      ['p', 9],
      [9],
      [9],
      [9],
      [],
      [],
      ['p', 9],
      [],
      [],
      ['p', 9],
    ]);
  });

  test('a change is sent at once and begins the repeats again', () => {
    const { output, take, at } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[0, 9]]);
    at(0, 20, 40, 60);
    output.setLevels('a', SACN, [[0, 77]]);
    expect(at(100, 120, 140, 160, 180)).toEqual([[77], [77], [77], [77], []]);
  });

  test('slots that nobody took follow what others send', () => {
    const { output, others, take, at, sacn } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[0, 9]]);
    at(0, 20, 40, 60);
    others[1] = 33;
    others[0] = 200;
    at(80);
    expect([...sacn[0]!.slots.subarray(0, 3)]).toEqual([9, 33, 0]);
  });

  test('while levels move without a pause, priorities go every 900 ms', () => {
    const { output, take, at } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[0, 0]]);
    at(0);
    const withPriorities: number[] = [];
    for (let now = 100; now <= 1900; now += 100) {
      output.setLevels('a', SACN, [[0, now / 10]]);
      if (at(now)[0]!.includes('p')) withPriorities.push(now);
    }
    expect(withPriorities).toEqual([900, 1800]);
  });

  test('a changed priority is sent at once', () => {
    const { output, take, at, sacn } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[4, 9]]);
    at(0, 20, 40, 60);
    output.configure({ rate: 44, priority: 120, broadcast: false, sync: 0, artSync: false });
    expect(at(80)).toEqual([['p', 0]]);
    expect([sacn[0]!.priority, sacn[0]!.slots[4], sacn[0]!.slots[5]]).toEqual([120, 120, 0]);
  });

  test('each packet has the next number', () => {
    const { output, take, at, sacn } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[0, 9]]);
    const numbers: number[] = [];
    for (let now = 0; now < 300_000; now += 900) {
      at(now);
      numbers.push(...sacn.map(({ sequence }) => sequence));
    }
    expect(numbers.length).toBeGreaterThan(512);
    numbers.forEach((one, i) => i > 0 && expect(one).toBe((numbers[i - 1]! + 1) & 0xff));
  });

  test('Art-Net sequence numbers leave out 0, which means unused', () => {
    const { output, take, at, artnet } = begin({}, { own: '10.0.0.1' });
    output.makeHot('Mara', 0);
    take(ARTNET, [[0, 9]]);
    const numbers = new Set<number>();
    for (let now = 0; now < 300_000; now += 900) {
      at(now);
      artnet.forEach(({ dmx }) => numbers.add(dmx.sequence));
    }
    expect([numbers.has(0), numbers.size]).toEqual([false, 255]);
  });
});

describe('what is held', () => {
  test('one that is taken is refused to others, and all that was asked for with it', () => {
    const { output, take, taken } = begin();
    output.makeHot('Mara', 0);
    expect(take(SACN, [[11, 9]])).toBeUndefined();
    expect(
      take(
        SACN,
        [
          [10, 9],
          [11, 9],
        ],
        'b',
      ),
    ).toMatch('3/12 is taken by Person a already.');
    expect([...taken.get(SACN)!.subarray(10, 13)]).toEqual([0, 150, 0]);
  });

  test('without a level a slot begins where it is; taken again it stays where it was set', () => {
    const { output, others, take, at, sacn } = begin();
    others[0] = 80;
    output.makeHot('Mara', 0);
    take(SACN, [[0, null]]);
    output.setLevels('a', SACN, [[0, 20]]);
    take(SACN, [[0, null]]);
    at(0);
    expect(sacn[1]!.slots[0]).toBe(20);
    take(SACN, [[1, null]]);
    others[1] = 5;
    at(20);
    expect(sacn[1]!.slots[1]).toBe(0);
  });

  test('levels are set and pictures painted only on what the same client holds', () => {
    const { output, take, at, sacn } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [
      [0, 1],
      [1, 1],
    ]);
    take(SACN, [[2, 1]], 'b');
    output.setLevels('b', SACN, [
      [0, 99],
      [2, 50],
    ]);
    expect(output.paint('a', SACN, Uint16Array.of(0, 1, 2, 3), Uint8Array.of(11, 12, 13, 14))).toBe(2);
    expect(output.paint('a', ARTNET, Uint16Array.of(0), Uint8Array.of(11))).toBe(0);
    at(0);
    expect([...sacn[1]!.slots.subarray(0, 4)]).toEqual([11, 12, 50, 0]);
  });

  test('holds are reported as runs of slots, one report for each take', () => {
    const { output, take } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [
      [0, 1],
      [1, 1],
      [4, 1],
    ]);
    take(SACN, [[2, 1]], 'b', true);
    expect(output.report(0).holds).toMatchObject([
      {
        by: 'Person a',
        universe: 3,
        key: SACN,
        since: 1000,
        stay: false,
        runs: [
          [1, 2],
          [5, 5],
        ],
      },
      { by: 'Person b', stay: true, runs: [[3, 3]] },
    ]);
    expect(output.report(0).holds[0]!.holder).not.toBe('a');
  });
});

describe('how it ends', () => {
  test('sACN: three packets that say so, with the last levels, and nothing more', () => {
    const { output, take, at, sacn } = begin();
    output.makeHot('Mara', 0);
    take(SACN, [[0, 9]]);
    at(0);
    sacn.length = 0;
    output.giveBack(() => true);
    expect(sacn.map(({ terminated, startCode, slots }) => [terminated, startCode, slots[0]])).toEqual([
      [true, 0, 9],
      [true, 0, 9],
      [true, 0, 9],
    ]);
    expect(at(20, 1000)).toEqual([[], []]);
    expect(output.report(0).holds).toEqual([]);
  });

  test('what is left goes on, without what was given back', () => {
    const { output, take, at, others, taken, sacn } = begin();
    others[0] = 60;
    output.makeHot('Mara', 0);
    take(SACN, [[0, 9]]);
    take(SACN, [[1, 8]], 'b');
    at(0, 20, 40, 60);
    output.giveBack(({ client }, key, slot) => client === 'a' && key === SACN && slot === 0);
    expect(at(80)).toEqual([['p', 60]]);
    expect([sacn[0]!.terminated, sacn[1]!.slots[1]]).toEqual([false, 8]);
    expect([...taken.get(SACN)!.subarray(0, 2)]).toEqual([0, 150]);
  });

  test('Art-Net: zeros where the highest level counts, the others’ own where the latest change does', () => {
    for (const [ltp, last] of [
      [false, 0],
      [true, 44],
    ] as const) {
      const { output, take, at, artnet, others } = begin({}, { ltp });
      others[0] = 44;
      output.makeHot('Mara', 0);
      take(ARTNET, [[0, 9]]);
      at(0);
      artnet.length = 0;
      output.giveBack(() => true);
      expect(artnet.map(({ to, dmx }) => [to, dmx.slots[0]])).toEqual(
        Array.from({ length: 3 }, () => [
          ['10.0.0.31', last],
          ['10.0.0.32', last],
        ]).flat(),
      );
    }
  });
});

describe('where Art-Net goes', () => {
  const sentTo = (settings: Partial<OutputSettings>, world: World) => {
    const { output, take, at, artnet } = begin(settings, world);
    output.makeHot('Mara', 0);
    take(ARTNET, [[0, 9]]);
    at(0);
    return artnet.map(({ to, dmx }) => `${to} ${dmx.portAddress}`);
  };

  test('to the nodes that list it, and to this computer’s own ear', () =>
    expect(sentTo({}, { own: '10.0.0.1', broadcast: '10.255.255.255' })).toEqual([
      '10.0.0.31 18',
      '10.0.0.32 18',
      '10.0.0.1 18',
    ]));

  test('to all, where that is wanted and possible', () => {
    expect(sentTo({ broadcast: true }, { own: '10.0.0.1', broadcast: '10.255.255.255' })).toEqual([
      '10.255.255.255 18',
    ]);
    expect(sentTo({ broadcast: true }, {})).toEqual(['10.0.0.31 18', '10.0.0.32 18']);
  });

  test('which nodes get it is told', () => {
    const { output, take } = begin();
    output.makeHot('Mara', 0);
    take(ARTNET, [[0, 9]]);
    take(SACN, [[0, 9]]);
    expect(output.report(0).targets).toEqual({ [ARTNET]: ['10.0.0.31', '10.0.0.32'] });
  });
});

test('universes of sACN that are sent are announced, and can be ended by another', () => {
  const { output, take, at } = begin();
  expect([output.discovery(), output.sending('cid', 'lo')]).toEqual([[], []]);
  output.makeHot('Mara', 0);
  take(ARTNET, [[0, 9]]);
  expect([output.discovery(), output.sending('cid', 'lo')]).toEqual([[], []]);
  take(SACN, [[0, 9]]);
  at(0);
  const [page, ...more] = output.discovery().map((bytes) => decodeSacn(bytes));
  expect(more).toEqual([]);
  expect(page).toMatchObject({ ok: true, value: { kind: 'discovery', universes: [7] } });
  expect(output.sending('cid', 'lo')).toEqual([
    { cid: 'cid', universe: 7, sequence: 2, priority: 150, by: 'lo', to: [] },
  ]);
});
