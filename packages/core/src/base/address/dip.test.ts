import fc from 'fast-check';
import { DIP_USUAL, dipSwitches, type DipScheme } from '.';

const value = (switches: readonly { label: string; on: boolean }[]) =>
  switches.reduce((sum, { label, on }) => sum + (on ? 2 ** (Number(label) - 1) : 0), 0);

test('the switches that are on add up to the address, in either base, order and lever way', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 511 }),
      fc.constantFrom<DipScheme['order']>('left', 'right'),
      fc.constantFrom<DipScheme['on']>('up', 'down'),
      fc.constantFrom(0 as const, 1 as const),
      (channel, order, on, base) => {
        const row = dipSwitches(channel, { order, on, base, extras: [] });
        if (!row.ok) throw new Error(row.why);
        expect(row.value).toHaveLength(9);
        expect(value(row.value)).toBe(channel - 1 + base);
        expect(row.value[0]!.label).toBe(order === 'left' ? '1' : '9');
        for (const one of row.value) expect(one.up).toBe(one.on === (on === 'up'));
      },
    ),
  );
});

test('512 does not fit nine switches that count from 1, and does from 0', () => {
  expect(dipSwitches(512, DIP_USUAL)).toMatchObject({ ok: false });
  expect(dipSwitches(512, { ...DIP_USUAL, base: 0 })).toMatchObject({ ok: true });
});

test('fixed switches stand after the nine', () => {
  const row = dipSwitches(1, { ...DIP_USUAL, extras: [{ label: 'DMX', on: true }] });
  expect(row.ok && row.value[9]).toEqual({ label: 'DMX', on: true, up: true });
});
