import { nightFerry } from '../../whole/demo';
import { portTable, readPortTable, writeTable } from '../../files/format';
import { MODELS } from '../../rig/library';
import { recordsAfter } from '../../show/edit';
import { refuse } from '../../base/result';
import { checkRecord, type Machine, type MachinePort, type Model, PLAIN_MACHINE } from '../../show/records';
import {
  applySettings,
  carriedBy,
  fitPort,
  lossText,
  plainPort,
  portDifferences,
  portsFor,
  readSnapshot,
  setPorts,
  shownBy,
  snapshotOf,
  STARTING_POINTS,
  whyNot,
  wireNumber,
  writeSnapshot,
} from '.';

const model = (name: string): Model => MODELS.find((one) => one.name === name)!;
const models = new Map(MODELS.map((one) => [one.id, one]));
const box = (name: string, modelName: string, ports?: readonly MachinePort[]): Machine => ({
  ...PLAIN_MACHINE,
  id: name,
  rev: 1,
  name,
  kind: 'node',
  modelId: model(modelName).id,
  ports: ports ?? portsFor(model(modelName), []),
});

test('at least twelve models, from one that cannot merge or fall back to one that can do all', () => {
  expect(MODELS.length).toBeGreaterThanOrEqual(12);
  expect(model('Pair 2')).toMatchObject({ ports: 2, merges: ['none'], losses: ['hold'], rdm: false });
  expect(model('Rack 16')).toMatchObject({ ports: 16, rdm: true, sources: 4 });
  for (const one of MODELS) expect(checkRecord('model', one).ok).toBe(true);
});

test('what a model cannot do is said setting by setting, with its name', () => {
  const asked = {
    ...plainPort(3, 1),
    merge: 'ltp',
    loss: { kind: 'fade', after: 1, over: 2 },
    rate: 44,
    rdm: true,
  } as const;
  expect(whyNot(model('Pair 2'), asked)).toEqual([
    'Marram Pair 2 has 2 ports, so no port 3.',
    'Marram Pair 2 cannot merge.',
    'Marram Pair 2 cannot do “fades to black in 2 s after 1 s” when signal is lost.',
    'Marram Pair 2 puts out at most 40 frames a second.',
    'Marram Pair 2 has no RDM.',
  ]);
  expect(whyNot(model('Rack 16'), asked)).toEqual([]);
  expect(whyNot(model('Pair 2'), { ...plainPort(1, 1), use: 'in' })).toEqual(['Marram Pair 2 has no inputs.']);
  expect(whyNot(model('Wall 1'), plainPort(1, 1, 'artnet'))[0]).toBe('Quillon Wall 1 does not speak Art-Net.');
});

test.each(MODELS.filter(({ ports }) => ports > 0))('a port bent to $name is one that it can do', (one) => {
  const asked: MachinePort = {
    ...plainPort(1, 5),
    merge: 'ltp',
    loss: { kind: 'look', after: 1, over: 0 },
    start: 'look',
    rdm: true,
    copyOf: 2,
    rate: 44,
  };
  for (const use of ['out', 'in', 'off', 'fixed'] as const) {
    const whys = whyNot(one, fitPort(one, { ...asked, use }));
    expect(whys.filter((why) => !/does not speak/.test(why))).toEqual([]);
  }
});

describe('ports set on a model with limits', () => {
  const pair = box('A', 'Pair 2');

  test('turned to output, a port gets the merge, loss and rate that the model can do', () => {
    const plan = setPorts(pair, [1, 2], { set: { use: 'out', protocol: 'sacn' }, from: 4 }, model('Pair 2'));
    const after = plan.ok ? (plan.value.changes[0]!.after as Machine) : undefined;
    expect(after!.ports.flatMap((port) => whyNot(model('Pair 2'), port))).toEqual([]);
    expect(after!.ports.map(({ use, universe, merge }) => [use, universe, merge])).toEqual([
      ['out', 4, 'none'],
      ['out', 5, 'none'],
    ]);
  });

  test('a setting beyond the model is refused before the push', () => {
    const refused = (set: Partial<MachinePort>) => setPorts(pair, [1], { set }, model('Pair 2'));
    expect(refused({ use: 'in' })).toEqual(refuse('beyond-model', 'Marram Pair 2 has no inputs.'));
    expect(refused({ use: 'out', merge: 'ltp', rdm: true })).toEqual(
      refuse('beyond-model', 'Marram Pair 2 cannot merge. Marram Pair 2 has no RDM.'),
    );
  });
});

test('the number a device shows is counted as it counts', () => {
  expect(shownBy({ protocol: 'artnet' }, 18, 1)).toBe('Art-Net 0.1.2, shown as 19');
  expect(shownBy({ protocol: 'artnet' }, 18, 0)).toBe('Art-Net 0.1.2, shown as 18');
  expect(shownBy({ protocol: 'sacn' }, 18, 1)).toBe('sACN 18');
  const universes = new Map(nightFerry().universe.map((one) => [one.number, one]));
  expect(wireNumber(plainPort(1, 9, 'artnet'), universes)).toBe(8);
  expect(wireNumber(plainPort(1, 900, 'artnet'), universes)).toBe(899);
});

test('a copy is followed to its end, and a circle of copies comes to an end', () => {
  const ports = [1, 2, 3].map((n) => ({ ...plainPort(n, n), copyOf: n === 1 ? null : n - 1 }));
  expect(carriedBy(ports[2]!, ports).universe).toBe(1);
  const circle = [
    { ...plainPort(1, 1), copyOf: 2 },
    { ...plainPort(2, 2), copyOf: 1 },
  ];
  expect([1, 2]).toContain(carriedBy(circle[0]!, circle).universe);
});

test('loss of signal in words', () =>
  expect(
    [
      { kind: 'hold', after: 0, over: 0 },
      { kind: 'hold-black', after: 0, over: 0 },
      { kind: 'hold-black', after: 5, over: 0 },
      { kind: 'fade', after: 2.5, over: 3 },
      { kind: 'full', after: 0, over: 0 },
      { kind: 'look', after: 1, over: 0 },
    ].map((loss) => lossText(loss as MachinePort['loss'])),
  ).toEqual([
    'holds for ever',
    'black at once',
    'holds 5 s, then black',
    'fades to black in 3 s after 2.5 s',
    'full',
    'stored look after 1 s',
  ]));

test('many ports at once: universes from a number by steps, other settings alike', () => {
  const machine = box('Rack', 'Rack 8');
  const plan = setPorts(machine, [2, 4, 3], { set: { use: 'out', merge: 'ltp' }, from: 10, step: 5 });
  const after = plan.ok ? (plan.value.changes[0]!.after as Machine) : machine;
  expect(after.ports.map(({ number, use, universe }) => [number, use, universe]).slice(0, 5)).toEqual([
    [1, 'off', 1],
    [2, 'out', 10],
    [3, 'out', 15],
    [4, 'out', 20],
    [5, 'off', 1],
  ]);
  expect(plan.ok && plan.value.lines.find(({ subject }) => subject === 'Rack, port 3, universe')).toMatchObject({
    before: '',
    after: '15',
  });
  expect(setPorts(machine, [1], { set: { use: 'off' } })).toMatchObject({ ok: false, why: 'Nothing would change.' });
});

test('settings go to those that can; the others are left, with the reason', () => {
  const machines = [box('A', 'Rack 8'), box('B', 'Pair 2'), box('C', 'Quad 4')];
  const backup = STARTING_POINTS.find(({ name }) => name === 'Two desks together')!;
  const { plan, left } = applySettings(
    backup.name,
    (one) => backup.ports(models.get(one.modelId!)!.ports, 5),
    machines,
    models,
  );
  expect(left.map(({ machine, why }) => [machine.name, why])).toEqual([['B', 'Marram Pair 2 cannot merge.']]);
  expect(plan).toMatchObject({ ok: true, value: { sentence: 'Gave “Two desks together” to 2 machines' } });
  const rack = plan.ok && (plan.value.changes.find(({ id }) => id === 'A')!.after as Machine);
  expect(rack && rack.ports.map(({ universe }) => universe)).toEqual([5, 6, 7, 8, 9, 10, 11, 12]);
});

test('a snapshot is a file that comes back equal; other files are refused in a sentence', () => {
  const kept = snapshotOf(box('A', 'Rack 8'), 'k', 'Opening night', '2026-01-01T00:00:00Z', 'as it was');
  const back = readSnapshot(writeSnapshot(kept), 'other');
  expect(back).toEqual({ ok: true, value: { ...kept, id: 'other', machineId: null } });
  for (const text of [
    '',
    '{}',
    '[]',
    'null',
    writeSnapshot(kept).slice(0, -9),
    writeSnapshot(kept).replace('"htp"', '"loud"'),
  ]) {
    const read = readSnapshot(text, 'x');
    expect(read.ok || read.why).toMatch(/\.$/);
  }
});

test('a snapshot compared with what came after tells each setting', () => {
  const before = [plainPort(1, 1)];
  const after = [{ ...plainPort(1, 2), label: 'Bar' }, plainPort(2, 3)];
  expect(portDifferences('Rack', before, after).filter(({ subject }) => /port 1/.test(subject))).toEqual([
    { subject: 'Rack, port 1, universe', before: '1', after: '2' },
    { subject: 'Rack, port 1, label', before: '', after: 'Bar' },
  ]);
});

describe('the table of ports', () => {
  const ferry = nightFerry();

  test('goes out and comes in without a change', () => {
    const read = readPortTable(writeTable(portTable(ferry)), ferry);
    expect(read).toMatchObject({ ok: true, value: { bad: [], plan: { ok: false, why: 'Nothing would change.' } } });
  });

  test('a changed cell changes that setting alone; wrong lines are told and left out', () => {
    const table = writeTable(portTable(ferry))
      .replace('Boiler node,1,out,sACN,6,,', 'Boiler node,1,out,sACN,7,Bilge,')
      .concat(
        'Ghost node,1,out,sACN,1,,,,,,,,,,,\r\n',
        'Boiler node,2,sideways,,,,,,,,,,,,,\r\n',
        'Boiler node,3,,,0,,,,,,,,,,,\r\n',
      );
    const read = readPortTable(table, ferry);
    if (!read.ok || !read.value.plan.ok) throw new Error('The table was refused.');
    expect(read.value.bad.map(({ why }) => why)).toEqual([
      'No machine of the show is called “Ghost node”.',
      'Use “sideways” is none of out, in, off, fixed.',
      'The universe must be at least 1.',
    ]);
    expect(read.value.plan.value.lines).toEqual([
      { subject: 'Boiler node, port 1, universe', before: '6', after: '7' },
      { subject: 'Boiler node, port 1, label', before: '', after: 'Bilge' },
    ]);
    const after = recordsAfter(ferry, read.value.plan.value.changes).machine.find(
      ({ name }) => name === 'Boiler node',
    )!;
    expect(after.ports).toHaveLength(4);
  });

  test('a table without its columns is refused', () =>
    expect(readPortTable('Box;Socket\n1;2', ferry)).toMatchObject({
      ok: false,
      why: 'The table has no column “Machine”.',
    }));
});
