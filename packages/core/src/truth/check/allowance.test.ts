import { sendersOf } from '../../network/flow';
import { nightFerry } from '../../whole/demo';
import { footprintOf } from '../../rig/fixture';
import { MODELS } from '../../rig/library';
import { type Model, PLAIN_MACHINE, PLAIN_LINE, type ShowRecords } from '../../show/records';
import { allowance, allowanceText } from './allowance';
import { viewOf } from './finding';

const ferry = nightFerry();
const desk = MODELS.find(({ id }) => id === 'model-tern-touch')!;

/** A desk of `model` that sends show universes 1 to `count`, with the demo show's lamps. */
const show = (model: Partial<Model>, count: number): ShowRecords => ({
  ...ferry,
  model: [{ ...desk, ...model }],
  machine: [
    {
      ...PLAIN_MACHINE,
      id: 'desk',
      rev: 1,
      name: 'Desk',
      kind: 'console',
      modelId: desk.id,
      interfaces: [{ name: '', mac: '', addresses: [{ way: 'fixed', address: '10.0.0.1', prefix: 8 }] }],
      sends: {
        lines: [{ ...PLAIN_LINE, from: 1, count }],
        pennant: { letter: 'D', cut: 'square', fill: 'plain' },
      },
    },
  ],
});
const ofNoModel = (records: ShowRecords): ShowRecords => ({
  ...records,
  machine: records.machine.map((one) => ({ ...one, modelId: null })),
});
const found = (records: ShowRecords) => [...allowance.find(viewOf(records))].map(({ sentence }) => sentence);
/** Slots of the lamps on some universes, counted by hand. */
const parameters = (last: number) =>
  ferry.lamp
    .filter(({ universe }) => universe <= last)
    .reduce((sum, { typeId, mode }) => {
      const type = ferry.type.find(({ id }) => id === typeId)!;
      return sum + footprintOf(type.modes.find(({ name }) => name === mode)!);
    }, 0);

test('as many as allowed is fine; one more universe, or one parameter fewer allowed, is a finding', () => {
  const exact = { universes: 3, parameters: parameters(3) };
  expect(found(show(exact, 3))).toEqual([]);
  expect(found(show({ ...exact, universes: 2 }, 3))).toEqual([
    `Desk is planned to send 3 universes; a ${desk.name} sends 2.`,
  ]);
  expect(found(show({ ...exact, parameters: parameters(3) - 1 }, 3))).toEqual([
    `Desk is planned to send ${parameters(3)} parameters; a ${desk.name} is allowed ${parameters(3) - 1}.`,
  ]);
});

test('a model without limits allows all; a sender of no known model is not judged', () => {
  expect(found(show({ universes: null, parameters: null }, 8))).toEqual([]);
  expect(found(ofNoModel(show({ universes: 1 }, 8)))).toEqual([]);
});

test('what is used of what is allowed, in words', () => {
  const said = (records: ShowRecords) => allowanceText(sendersOf(records.machine)[0]!, viewOf(records));
  expect(said(show({ universes: 4, parameters: null }, 3))).toBe(
    `A ${desk.maker} ${desk.name}: 3 of 4 universes; ${parameters(3)} parameters, no limit known.`,
  );
  expect(said(ofNoModel(show({}, 3)))).toBeUndefined();
});
