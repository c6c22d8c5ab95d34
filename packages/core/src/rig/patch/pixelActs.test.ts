import { nightFerry } from '../../whole/demo';
import { putController, putRun, removeRun, rigOf } from '.';
import { recordsAfter } from '../../show/edit';

const demo = nightFerry();
/** With the cords round the funnel as its only pixels */
const ferry = rigOf({
  ...demo,
  run: demo.run.slice(0, 4),
  machine: demo.machine.filter(({ id }) => id === demo.run[0]!.machineId),
  universe: demo.universe.filter(({ number }) => number <= 13),
});
const run = (number: number) => ferry.records.run.find((one) => one.number === number)!;
const newId = () => 'new';

test('a longer run pushes those after it on, and brings the universe that it needs', () => {
  const plan = putRun(ferry, { ...run(801), count: 172 }, run(801), newId);
  expect(plan.lines).toEqual([
    { subject: 'Universe 14', before: '', after: 'added, as Art-Net 0.0.13' },
    { subject: '802 Funnel seam port', before: '13/217 – 13/306', after: '14/7 – 14/96' },
    { subject: '803 Funnel seam starboard', before: '13/307 – 13/396', after: '14/97 – 14/186' },
    { subject: '804 Smoke lip', before: '13/397 – 13/492', after: '14/187 – 14/282' },
    { subject: '801 Funnel rim', before: '13/1 – 13/216', after: '13/1 – 14/6' },
  ]);
  const after = rigOf(recordsAfter(ferry.records, plan.changes));
  expect(after.patch.at({ universe: 14, channel: 7 })[0]?.lamp.number).toBe(802);
});

test('a new run is told alone; one that is removed lets the others follow up', () => {
  const fresh = { ...run(804), id: 'run-9', number: 809, start: { kind: 'after' } as const };
  expect(putRun(ferry, fresh, undefined, newId).lines.map(({ subject }) => subject)).toEqual([
    'Universe 14',
    '809 Smoke lip',
  ]);
  const after = rigOf(recordsAfter(ferry.records, removeRun(run(802)).changes));
  expect(after.patch.lamp('run-803')!.spans[0]).toMatchObject({ universe: 13, channel: 217 });
});

test('a controller is written with its limits in words', () => {
  const machine = ferry.records.machine.find(({ controller }) => controller !== null)!;
  const controller = { ...machine.controller!, outputs: 8 };
  const plan = putController(machine, { ...machine, controller });
  if (!plan.ok) throw new Error(plan.why);
  expect(plan.value).toMatchObject({
    sentence: 'Changed the controller Funnel cord driver',
    lines: [{ after: 'universes 13 to 13, 8 outputs of 450 channels' }],
  });
  expect(
    recordsAfter(ferry.records, plan.value.changes).machine.find(({ id }) => id === machine.id)?.controller,
  ).toEqual(controller);
});
