import fc from 'fast-check';
import { nightFerry } from '../../whole/demo';
import { recordsAfter, refuseChanges, settleChanges, toMaps, type Plan } from '../../show/edit';
import { Patch, rigOf } from '../../rig/patch';
import { emptyShow, PLAIN_LINE, PLAIN_MACHINE, type Machine, type ShowRecords } from '../../show/records';
import type { Result } from '../../base/result';
import {
  addUniverses,
  counterpart,
  deleteUniverses,
  nameUniverses,
  planOutlets,
  portsOfNumber,
  renumberUniverses,
  sendersOf,
  sentTo,
  setMerge,
  setWires,
  universesOf,
} from '.';

const ferry = nightFerry();
let made = 0;
const newId = () => `new-${(made += 1)}`;
const planOf = (result: Result<Plan>): Plan => {
  if (!result.ok) throw new Error(result.why);
  return result.value;
};
const after = (records: ShowRecords, result: Result<Plan>): ShowRecords => {
  const { changes } = planOf(result);
  const maps = toMaps(records);
  expect(refuseChanges(maps, settleChanges(maps, changes, 1))).toBeUndefined();
  return recordsAfter(records, changes);
};
const spansOn = (records: ShowRecords) => (universe: number) => rigOf(records).patch.universe(universe).length;
const byNumber = (records: ShowRecords, number: number) => records.universe.find((one) => one.number === number);

describe('added', () => {
  test('a range lies on the wire as far apart as its numbers, each with its number in its name', () => {
    const result = addUniverses(
      emptyShow(),
      { numbers: [3, 4, 7], protocol: 'artnet', wire: 10, pattern: 'Truss #', merge: 'ltp' },
      newId,
    );
    expect(planOf(result).lines).toEqual([
      { subject: 'Universe 3 Truss 3', before: '', after: 'Art-Net 0.0.10' },
      { subject: 'Universe 4 Truss 4', before: '', after: 'Art-Net 0.0.11' },
      { subject: 'Universe 7 Truss 7', before: '', after: 'Art-Net 0.0.14' },
    ]);
    expect(byNumber(after(emptyShow(), result), 7)).toMatchObject({ protocol: 'artnet', wire: 14, merge: 'ltp' });
  });

  test.each([
    [{ numbers: [1], wire: 900 }, 'The show would have universe 1 twice.'],
    [{ numbers: [900], wire: 1 }, 'Universes 1 and 900 would both be sACN 1.'],
    [{ numbers: [900, 901], wire: 63_999 }, 'Universe 901: The wire number must be at most 63999.'],
    [{ numbers: [], wire: 1 }, 'Say which universes: 1-8, or 1-8, 12.'],
  ])('%j is refused: %s', (over, why) =>
    expect(addUniverses(ferry, { protocol: 'sacn', pattern: '', merge: 'htp', ...over }, newId)).toMatchObject({ why }),
  );
});

describe('changed', () => {
  test('by the other protocol each keeps its place, counted as that protocol counts; or they follow from a number', () => {
    const kept = after(ferry, setWires(ferry, [1, 2], 'artnet', undefined));
    expect([byNumber(kept, 1), byNumber(kept, 2)]).toMatchObject([
      { protocol: 'artnet', wire: counterpart('sacn', byNumber(ferry, 1)!.wire, 'artnet') },
      { protocol: 'artnet' },
    ]);
    const put = after(ferry, setWires(ferry, [1, 2], 'sacn', 501));
    expect([byNumber(put, 1)!.wire, byNumber(put, 2)!.wire]).toEqual([501, 502]);
  });

  test('what would be another one’s on the wire, or beyond the last number, is refused', () => {
    expect(setWires(ferry, [1], 'sacn', byNumber(ferry, 2)!.wire)).toMatchObject({ reason: 'not-possible' });
    expect(setWires(ferry, [1, 2], 'artnet', 32_767)).toMatchObject({ reason: 'out-of-range' });
  });

  test('merge and names of many; nothing that is so already is told', () => {
    expect(byNumber(after(ferry, setMerge(ferry, [1], 'ltp')), 1)!.merge).toBe('ltp');
    expect(setMerge(ferry, [1], byNumber(ferry, 1)!.merge)).toMatchObject({ reason: 'nothing' });
    expect(byNumber(after(ferry, nameUniverses(ferry, [5], 'Deck #')), 5)!.name).toBe('Deck 5');
  });
});

describe('renumbered', () => {
  /** Every sender's universes and where each goes on the wire, by the name of the universe. */
  const sendings = (records: ShowRecords) => {
    const names = new Map(records.universe.map((one) => [one.number, one]));
    return sendersOf(records.machine).map((sender) => [
      sender.name,
      universesOf(sender)
        .flatMap((number) =>
          sender.lines
            .filter(({ from, count }) => number >= from && number < from + count)
            .map((line) => [names.get(number)?.id, sentTo(line, number, names.get(number))] as const),
        )
        .map((one) => JSON.stringify(one))
        .sort(),
    ]);
  };
  const lamps = (records: ShowRecords) => {
    const ids = new Map(records.universe.map((one) => [one.number, one.id]));
    return records.lamp.map(({ id, universe, channel, blocks }) => [
      id,
      ids.get(universe),
      channel,
      ...blocks.map((block) => ids.get(block.universe)),
    ]);
  };
  const linked = (records: ShowRecords) => {
    const ids = new Map(records.universe.map((one) => [one.number, one.id]));
    return records.link.map(({ name, lines }) => [
      name,
      lines
        .flatMap(({ from, count, to }) => Array.from({ length: count }, (_, i) => `${ids.get(from + i)} ${to + i}`))
        .sort(),
    ]);
  };

  test('whatever range moves where, everything that stands on it follows and nothing on the wire changes', () =>
    fc.assert(
      fc.property(
        fc.subarray(
          ferry.universe.map(({ number }) => number),
          { minLength: 1 },
        ),
        fc.integer({ min: 1, max: 400 }),
        (numbers, first) => {
          const result = renumberUniverses(ferry, numbers, first);
          if (!result.ok) return expect(result.why).toMatch(/already|together|Nothing/);
          const there = after(ferry, result);
          expect(there.universe.map(({ id, protocol, wire }) => [id, protocol, wire])).toEqual(
            ferry.universe.map(({ id, protocol, wire }) => [id, protocol, wire]),
          );
          expect(sendings(there)).toEqual(sendings(ferry));
          expect(lamps(there)).toEqual(lamps(ferry));
          expect(linked(there)).toEqual(linked(ferry));
        },
      ),
      { numRuns: 60 },
    ));

  test('a run may move onto places that it leaves itself; those of others are refused', () => {
    const first = Math.max(...ferry.universe.map(({ number }) => number));
    expect(renumberUniverses(ferry, [1, 2, 3], 2)).toMatchObject({ reason: 'taken' });
    const free = after(ferry, renumberUniverses(ferry, [first], first + 1));
    expect(byNumber(free, first)).toBeUndefined();
    expect(renumberUniverses(ferry, [first], 64_000)).toMatchObject({ reason: 'out-of-range' });
  });

  test('part of what a controller takes in a row cannot go alone', () => {
    const controller = ferry.machine.find((one) => (one.controller?.universes ?? 0) > 1)!;
    expect(renumberUniverses(ferry, [controller.controller!.firstUniverse], 900)).toMatchObject({
      why: expect.stringMatching(/renumber all of them together/) as string,
    });
  });
});

describe('deleted', () => {
  test('one that is used stays, with what uses it said; one that is not goes', () => {
    expect(deleteUniverses(ferry, [1], spansOn(ferry))).toMatchObject({
      reason: 'not-possible',
      why: expect.stringMatching(/^Universe 1 is used by \d+ lamps or runs, /) as string,
    });
    const more = after(
      ferry,
      addUniverses(ferry, { numbers: [950], protocol: 'sacn', wire: 950, pattern: '', merge: 'htp' }, newId),
    );
    expect(byNumber(after(more, deleteUniverses(more, [950], spansOn(more))), 950)).toBeUndefined();
  });

  test.each<[string, Partial<Machine>]>([
    [
      'sent',
      {
        sends: {
          lines: [{ ...PLAIN_LINE, from: 1, count: 9 }],
          pennant: { letter: 'A', cut: 'square', fill: 'plain' },
        },
      },
    ],
    ['carried', { ports: portsOfNumber([], 1).map((port) => ({ ...port, use: 'out' as const, universe: 5 })) }],
  ])('one that is only %s is used too', (_, over) => {
    const machine: Machine = { ...PLAIN_MACHINE, id: 'm', rev: 0, name: 'Box', kind: 'node', ...over };
    const base = { ...emptyShow(), machine: [machine] };
    const show = after(
      base,
      addUniverses(base, { numbers: [5], protocol: 'sacn', wire: 5, pattern: '', merge: 'htp' }, newId),
    );
    expect(deleteUniverses(show, [5], () => 0)).toMatchObject({
      why: expect.stringMatching(/used by .*Box/) as string,
    });
  });
});

describe('given ports', () => {
  const node: Machine = {
    ...PLAIN_MACHINE,
    id: 'node',
    rev: 0,
    name: 'Bow box',
    kind: 'node',
    ports: portsOfNumber([], 2),
  };
  const show = after(
    emptyShow(),
    addUniverses(emptyShow(), { numbers: [1, 2, 3], protocol: 'sacn', wire: 1, pattern: '', merge: 'htp' }, newId),
  );

  test('a new node of unknown model carries them on its first ports', () => {
    const there = after(show, planOutlets(show, undefined, node, [1, 2]));
    expect(there.machine[0]!.ports.map(({ use, universe, protocol }) => [use, universe, protocol])).toEqual([
      ['out', 1, 'sacn'],
      ['out', 2, 'sacn'],
    ]);
  });

  test('ports in use are left; too few, an unknown universe, or a protocol that its model lacks are refused', () => {
    const busy = { ...node, ports: [{ ...node.ports[0]!, use: 'out' as const, universe: 3 }, node.ports[1]!] };
    expect(planOf(planOutlets(show, busy, busy, [1])).lines).toEqual([
      { subject: 'Bow box, port 2', before: 'off', after: 'universe 1' },
    ]);
    expect(planOutlets(show, busy, busy, [1, 2])).toMatchObject({ why: 'Bow box has 1 free port for 2 universes.' });
    expect(planOutlets(show, undefined, node, [9])).toMatchObject({ why: 'Universe 9 is not in the show.' });
    const model = {
      ...ferry.model.find(({ directions }) => directions.includes('out'))!,
      protocols: ['artnet'] as const,
    };
    expect(planOutlets({ ...show, model: [model] }, undefined, { ...node, modelId: model.id }, [1])).toMatchObject({
      why: 'Bow box does not speak the protocol of universe 1.',
    });
  });
});

test('the patch of a renumbered show finds no more than before', () => {
  const moved = after(ferry, renumberUniverses(ferry, [1], 700));
  expect(new Patch(moved.lamp, moved.type, moved.run, moved.machine).universe(700).length).toBe(
    rigOf(ferry).patch.universe(1).length,
  );
});
