import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { routed } from '@/testing/router';
import { open } from '@/testing/server';
import { Jump } from './Jump';

const records = nightFerry();

async function typed(text: string): Promise<jest.Mock> {
  const onClose = jest.fn();
  await open(<Jump onClose={onClose} />, { records });
  fireEvent.change(screen.getByLabelText('Jump to a slot, lamp, machine or universe'), { target: { value: text } });
  return onClose;
}

test.each([
  ['3/47', '/listen/u3?slot=47'],
  ['101', '/rig/lamp-101'],
  ['Port spot 2', '/rig/lamp-102'],
  ['u12', '/listen/u12'],
  ['127.0.0.33', '/wire/machine-car-deck'],
])('%s leads to %s, and the box closes', async (text, to) => {
  const onClose = await typed(text);
  fireEvent.keyDown(screen.getByLabelText('Jump to a slot, lamp, machine or universe'), { key: 'Enter' });
  expect(routed.sent).toEqual([to]);
  expect(onClose).toHaveBeenCalled();
});

test('a name that several things have lists them, each to be tapped', async () => {
  await typed('port spot');
  const found = screen.getAllByRole('button', { name: /Port spot/ });
  expect(found.length).toBeGreaterThan(3);
  fireEvent.click(found[1]!);
  expect(routed.sent).toHaveLength(1);
});

test('what is nowhere is said, and leads nowhere', async () => {
  await typed('zzz');
  expect(screen.getByText('Nothing in the show or on the wire fits “zzz”.')).toBeTruthy();
  fireEvent.keyDown(screen.getByLabelText('Jump to a slot, lamp, machine or universe'), { key: 'Enter' });
  expect(routed.sent).toEqual([]);
});
