import { fireEvent, screen } from '@testing-library/react';
import type { InterfacesReply, Settings } from '@taxiarch/core/contract';
import type { InterfaceInfo } from '@taxiarch/core/ip';
import { nightFerry } from '@taxiarch/core/demo';
import { answers, asked, liveOf, open, settled } from '@/testing/server';
import { HerePage } from './HerePage';

const records = nightFerry();
const info = (name: string, address: string, over: Partial<InterfaceInfo> = {}): InterfaceInfo => ({
  name,
  address,
  netmask: '255.0.0.0',
  mac: '02:00:00:00:00:01',
  loopback: false,
  medium: 'wired',
  up: true,
  ...over,
});
const loop = info('lo', '127.0.0.1', { loopback: true, medium: 'loopback' });
const wired = info('eth0', '10.0.0.5');
const wireless = info('wlan0', '192.168.1.7', { medium: 'wireless' });

function page(inUse: InterfaceInfo | null, artnetInUse = inUse, trouble = '') {
  const reply: InterfacesReply = {
    interfaces: [loop, wired, wireless],
    chosen: 'auto',
    artnetChosen: 'same',
    inUse,
    artnetInUse,
  };
  const settings = {
    interface: inUse?.address ?? '10.9.9.9',
    artnetInterface: 'same',
    listed: true,
    listedMost: 256,
  } as Settings;
  return open(<HerePage />, {
    records,
    live: liveOf(records, { trouble, listed: [0, 1, 2] }),
    says: { '/api/interfaces': reply, '/api/settings': settings },
  });
}
const sentence = () => screen.getByRole('heading', { level: 1 }).textContent;

test('the one that carries the stand-ins is as planned', async () => {
  await page(loop);
  expect(sentence()).toBe('Taxiarch listens on 127.0.0.1.');
  expect(screen.queryByText('look at')).toBeNull();
});

test('wireless is warned of, and an address outside every plan', async () => {
  await page(wireless);
  expect(screen.getByText(/^wlan0 is wireless\. .*Use a cable/)).toBeTruthy();
  expect(screen.getAllByText('look at').length).toBeGreaterThan(0);
});

test('two protocols on two interfaces are told apart', async () => {
  await page(loop, wired);
  expect(sentence()).toBe('Taxiarch listens on 127.0.0.1 for sACN, on 10.0.0.5 for Art-Net.');
});

test('one that is gone is said and stays chosen, so that it is used again when it returns', async () => {
  await page(null, null, 'The interface 10.9.9.9 is gone. Listening goes on when it returns.');
  expect(sentence()).toBe('Taxiarch has no interface to listen on.');
  expect(screen.getByText(/The interface 10\.9\.9\.9 is gone/)).toBeTruthy();
  expect(screen.getByLabelText<HTMLSelectElement>('For sACN').selectedOptions[0]!.textContent).toBe('10.9.9.9, gone');
});

test('another one is chosen at once', async () => {
  await page(loop);
  fireEvent.change(screen.getByLabelText('For Art-Net'), { target: { value: '10.0.0.5' } });
  await settled();
  expect(asked).toEqual([{ method: 'PATCH', path: '/api/settings', body: { artnetInterface: '10.0.0.5' } }]);
});

test('exact commands for three systems', async () => {
  await page(loop);
  for (const command of [/New-NetFirewallRule/, /socketfilterfw/, /ufw allow 6454\/udp/])
    expect(screen.getByText(command)).toBeTruthy();
});

test('it is listed as a node, and what follows from that is told; switched off, what is missed is told', async () => {
  await page(wired);
  expect(screen.getByText(/^Whoever polls is told of 3 outputs\. /)).toBeTruthy();
  answers.set('/api/settings', { interface: '10.0.0.5', artnetInterface: 'same', listed: false, listedMost: 256 });
  fireEvent.click(screen.getByRole('checkbox', { name: /^Answer Art-Net polls/ }));
  await settled();
  expect(asked.at(-1)!.body).toEqual({ listed: false });
  expect(screen.getByText(/do not send here: such universes look silent/)).toBeTruthy();
});
