import { nightFerry } from '@taxiarch/core/whole/demo';
import type { Machine } from '@taxiarch/core/show/records';
import { EMPTY_ADDRESS, EMPTY_INTERFACE, formOf, planOf, type MachineForm } from './machineForm';

const ferry = nightFerry();
const boiler = ferry.machine.find(({ name }) => name === 'Boiler node')!;
const written = (form: MachineForm, base?: Machine): Machine => {
  const plan = planOf(form, base, 'new', ferry);
  if (!plan.ok) throw new Error(plan.why);
  return plan.value.changes.find(({ kind }) => kind === 'machine')!.after as Machine;
};

test('a machine of the show as a form changes nothing', () => {
  for (const machine of ferry.machine)
    expect(planOf(formOf(machine), machine, '', ferry)).toMatchObject({ ok: false, why: 'Nothing would change.' });
});

test('what was typed is tidied: spaces, dashes in the hardware address, a mask with dots, rows left empty', () => {
  const form: MachineForm = {
    ...formOf(undefined),
    name: '  Bow node ',
    interfaces: [
      {
        name: '',
        mac: '02-7F-F1-00-00-77',
        addresses: [{ ...EMPTY_ADDRESS, address: ' 127.0.0.77 ', mask: '255.0.0.0' }, EMPTY_ADDRESS],
      },
      EMPTY_INTERFACE,
    ],
  };
  expect(written(form)).toMatchObject({
    id: 'new',
    name: 'Bow node',
    interfaces: [{ mac: '02:7f:f1:00:00:77', addresses: [{ way: 'fixed', address: '127.0.0.77', prefix: 8 }] }],
  });
});

test.each([
  [{ name: '' }, /name/i],
  [{ interfaces: [{ ...EMPTY_INTERFACE, mac: '02:7f' }] }, /six pairs/],
  [
    { interfaces: [{ ...EMPTY_INTERFACE, addresses: [{ ...EMPTY_ADDRESS, address: '10.0.0' }] }] },
    /four numbers with dots/,
  ],
  [
    {
      interfaces: [{ ...EMPTY_INTERFACE, addresses: [{ ...EMPTY_ADDRESS, address: '10.0.0.1', mask: '255.0.255.0' }] }],
    },
    /mask/,
  ],
])('%j is refused in a sentence', (over, why) => {
  const plan = planOf({ ...formOf(boiler), ...over }, boiler, '', ferry);
  expect(plan).toMatchObject({ ok: false, why: expect.stringMatching(why) as string });
});

test('a model of the library comes along, and the machine gets its ports, off', () => {
  const form: MachineForm = { ...formOf(undefined), name: 'Spare', modelId: 'model-tern-rack-16' };
  const plan = planOf(form, undefined, 'new', ferry);
  expect(plan.ok && plan.value.changes.map(({ kind }) => kind)).toEqual(['model', 'machine']);
  const { ports } = written(form);
  expect(ports).toHaveLength(16);
  expect(ports.every(({ use }) => use === 'off')).toBe(true);
});

test('the ports that are there outlive a change of model', () => {
  const { ports } = written({ ...formOf(boiler), modelId: 'model-tern-rack-8' }, boiler);
  expect(ports.slice(0, 4)).toEqual(boiler.ports);
  expect(ports).toHaveLength(8);
});
