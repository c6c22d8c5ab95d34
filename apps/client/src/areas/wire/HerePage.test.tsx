import { fireEvent, screen } from '@testing-library/react';
import type { InterfacesReply, LiveReport, Settings } from '@taxiarch/core/whole/contract';
import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { answers, asked, liveOf, open, settled, tell } from '@/testing/server';
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

function page(inUse: InterfaceInfo | null, artnetInUse = inUse, trouble = '', heard: Partial<LiveReport> = {}) {
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
    mostGroups: 4096,
  } as Settings;
  return open(<HerePage />, {
    records,
    live: liveOf(records, { trouble, listed: [0, 1, 2], ...heard }),
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

test('groups that could not be joined are said with the limit that kept them out, and the limit can be set', async () => {
  await page(wired, wired, '', { membership: { wanted: 5000, joined: 4096, ipv6: 0, most: 4096, full: false } });
  expect(
    screen.getByText(
      '4096 multicast groups joined of 5000 needed: what is opened and planned first, then what is announced.',
    ),
  ).toBeTruthy();
  expect(screen.getByText('904 universes that others announce are not heard, for the limit below.')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Most groups joined, 20 to 63999'), { target: { value: '9000' } });
  fireEvent.click(screen.getByRole('button', { name: 'Set limit' }));
  await settled();
  expect(asked.at(-1)!.body).toEqual({ mostGroups: 9000 });
});

test('universes that nobody announces are looked through range by range, and what was heard is told', async () => {
  await page(wired);
  fireEvent.change(screen.getByLabelText('Look through universes that nobody announces'), { target: { value: '1-9' } });
  fireEvent.click(screen.getByRole('button', { name: 'Look through them' }));
  await settled();
  expect(asked.at(-1)).toMatchObject({ method: 'POST', path: '/api/sweep', body: { universes: '1-9' } });
  const sweep = { running: true, total: 9, done: 3, at: 4, found: [2], looked: [{ from: 1, to: 3, at: 0 }] };
  tell(liveOf(records, { sweep }));
  expect(screen.getByText('Looking through universes from 4: 3 of 9 done, 1 heard.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Stop looking' }));
  await settled();
  expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: '/api/sweep' });
  tell(liveOf(records, { sweep: { ...sweep, running: false, done: 9, found: [2, 7] } }));
  expect(screen.getByText('Heard on 2, 7; they stand in Listen.')).toBeTruthy();
});

test('what is said beside levels, and what was not read, is listed', async () => {
  const alsoHeard = [
    {
      kind: 'timecode',
      address: '10.0.0.9',
      count: 250,
      says: '01:00:00:00, EBU, 25 a second',
      changedAt: 0,
      lastSeen: 0,
    },
  ] as const;
  await page(wired, wired, '', { alsoHeard, lost: 12, rejected: { 'wrong-length': 3 } });
  expect(screen.getByText('Time code: 01:00:00:00, EBU, 25 a second')).toBeTruthy();
  expect(screen.getByText('12 packets lost here: this computer could not take them in.')).toBeTruthy();
  expect(screen.getByText('3 packets: wrong length')).toBeTruthy();
});
