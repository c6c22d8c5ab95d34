import fc from 'fast-check';
import { MODELS } from '../../rig/library';
import { checkRecord, type Machine, type Model, PLAIN_MACHINE } from '../../show/records';
import {
  applySettings,
  keepSnapshot,
  plainPort,
  portsFor,
  readSnapshot,
  SNAPSHOT_FORMAT,
  snapshotOf,
  STARTING_POINTS,
  whyNot,
  writeSnapshot,
} from '.';

const models = new Map(MODELS.map((one) => [one.id, one]));
const box = (model: Model | null, name = 'Box'): Machine => ({
  ...PLAIN_MACHINE,
  id: name,
  rev: 3,
  name,
  kind: 'node',
  modelId: model?.id ?? null,
  ports: model ? portsFor(model, []) : [plainPort(1, 1)],
});
const withPorts = MODELS.filter(({ ports }) => ports > 0);
const point = fc.constantFrom(...STARTING_POINTS);

describe('starting points', () => {
  test('make well-formed ports for as many as a box has, their universes in a row', () =>
    fc.assert(
      fc.property(point, fc.integer({ min: 1, max: 16 }), fc.integer({ min: 1, max: 60_000 }), (one, count, first) => {
        const ports = one.ports(count, first);
        expect(ports.map(({ number, universe }) => [number, universe])).toEqual(
          Array.from({ length: count }, (_, i) => [i + 1, first + i]),
        );
        expect(checkRecord('machine', { ...box(null), ports })).toMatchObject({ ok: true });
      }),
    ));

  test('no two do the same, and each says what it is for', () => {
    const made = STARTING_POINTS.map(({ ports }) => JSON.stringify(ports(4, 1)));
    expect(new Set(made).size).toBe(made.length);
    for (const { about } of STARTING_POINTS) expect(about).toMatch(/\.$/);
  });

  test('whatever the model, it gets what it can do, or is left as it is with the reason', () =>
    fc.assert(
      fc.property(point, fc.constantFrom(...withPorts), (one, model) => {
        const machine = {
          ...box(model),
          ports: portsFor(model, []).map(({ number }) => plainPort(number, 500 + number)),
        };
        const wanted = one.ports(model.ports, 100);
        const { plan, left } = applySettings(one.name, () => wanted, [machine], models);
        const reasons = wanted.flatMap((port) => whyNot(model, port));
        if (reasons.length > 0) {
          expect(left).toEqual([{ machine, why: reasons[0] }]);
          expect(plan).toMatchObject({ ok: false, why: 'Nothing would change.' });
          return;
        }
        expect(left).toEqual([]);
        if (!plan.ok) throw new Error(plan.why);
        const [change] = plan.value.changes;
        expect(change).toMatchObject({ kind: 'machine', id: 'Box', rev: 3 });
        const after = change!.after as Machine;
        expect(after.ports.map(({ universe, use, merge }) => [universe, use, merge])).toEqual(
          wanted.map(({ universe, use, merge }) => [universe, use, merge]),
        );
        // Given a second time, there is nothing to do.
        expect(applySettings(one.name, () => wanted, [after], models).plan).toMatchObject({ ok: false });
      }),
    ));
});

test('ports that a box does not have are left out; without a model all are taken', () => {
  const [small] = withPorts.filter(({ ports }) => ports === 2);
  const four = STARTING_POINTS[0]!.ports(4, 20);
  const given = (machine: Machine) => {
    const { plan } = applySettings('x', () => four, [machine], models);
    return plan.ok ? (plan.value.changes[0]!.after as Machine).ports.map(({ universe }) => universe) : plan.why;
  };
  expect(given(box(small!))).toEqual([20, 21]);
  expect(given(box(null))).toEqual([20, 21, 22, 23]);
});

describe('what is kept', () => {
  const kept = snapshotOf(box(withPorts[0]!), 'k', 'Opening', '2026-02-03T04:05:06Z');

  test('is a record of the show, told by its name', () => {
    expect(checkRecord('snapshot', kept)).toMatchObject({ ok: true });
    const plan = keepSnapshot(kept);
    expect(plan.sentence).toMatch(/^Kept \d+ ports? as “Opening”$/);
    expect(plan.changes).toEqual([{ kind: 'snapshot', id: 'k', rev: null, after: kept }]);
  });

  test('is not changed when the machine is changed afterwards', () => {
    const machine = box(withPorts[0]!);
    const before = JSON.stringify(snapshotOf(machine, 'k', 'n', 'a').ports);
    const changed = { ...machine, ports: machine.ports.map((port) => ({ ...port, universe: 99 })) };
    expect(JSON.stringify(snapshotOf(machine, 'k', 'n', 'a').ports)).toBe(before);
    expect(JSON.stringify(snapshotOf(changed, 'k', 'n', 'a').ports)).not.toBe(before);
  });

  test.each([
    ['a file that is cut', writeSnapshot(kept).slice(0, 40), /no JSON document, or it is cut short/],
    ['another format', writeSnapshot(kept).replace(SNAPSHOT_FORMAT, 'something-else'), /does not say so/],
    ['a later version', writeSnapshot(kept).replace('"version": 1', '"version": 2'), /newer version/],
    ['no name', JSON.stringify({ ...JSON.parse(writeSnapshot(kept)), name: '' }), /\.$/],
  ])('%s is refused in a sentence', (_, text, why) =>
    expect(readSnapshot(text, 'x')).toMatchObject({ ok: false, why: expect.stringMatching(why) as string }),
  );

  test('any text at all is read or refused, never thrown', () =>
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.json()), (text) => {
        const back = readSnapshot(text, 'x');
        expect(back.ok || back.why.endsWith('.')).toBe(true);
      }),
    ));
});
