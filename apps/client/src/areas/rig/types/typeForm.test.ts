import { LIBRARY } from '@taxiarch/core/rig/library';
import { EMPTY_CHANNEL, readChannelForm, readTypeForm, renamedModes, typeForm } from './typeForm';

test.each(LIBRARY.map((type) => [type.name, type] as const))('%s is the same after the form', (_, type) => {
  expect(readTypeForm(typeForm(type), type)).toEqual({ ok: true, value: type });
});

test('a row that cannot be read says which and why', () => {
  const [type] = LIBRARY;
  const form = typeForm(type!);
  const broken = { ...form, modes: [{ ...form.modes[0]!, channels: [{ ...EMPTY_CHANNEL, slots: '1, 2, 3, 4, 5' }] }] };
  expect(readTypeForm(broken, type!)).toMatchObject({
    ok: false,
    why: expect.stringContaining('Channel 1, Dimmer') as string,
  });
  expect(readChannelForm({ ...EMPTY_CHANNEL, default: '-1' })).toMatchObject({ ok: false });
  expect(readChannelForm({ ...EMPTY_CHANNEL, cell: '2', block: '2' })).toMatchObject({ value: { cell: 2, block: 2 } });
});

test('modes remember what they were called', () => {
  const form = typeForm(LIBRARY[0]!);
  const [first, ...rest] = form.modes;
  expect(renamedModes({ ...form, modes: [{ ...first!, name: 'One' }, ...rest] }).get('Dimmer')).toBe('One');
});
