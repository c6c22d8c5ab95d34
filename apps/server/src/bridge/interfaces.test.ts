import type { InterfaceInfo } from '@taxiarch/core/network/ip';
import type { Network } from '@taxiarch/core/show/records';
import { broadcastOf, chooseInterface, chooseInterfaces, listInterfaces, mediumOf, plainTrouble } from './interfaces';

const one = (name: string, address: string, netmask = '255.255.255.0'): InterfaceInfo => ({
  name,
  address,
  netmask,
  mac: '02:7f:f0:00:00:01',
  loopback: address.startsWith('127.'),
  medium: 'unknown',
  up: true,
});
const lo = one('lo', '127.0.0.1', '255.0.0.0');
const wired = one('eth0', '192.0.2.10');
const wireless = one('wlan0', '198.51.100.10');

test.each([
  ['auto', [lo, wireless, wired], wired],
  ['auto', [lo, wireless], wireless],
  ['auto', [lo], lo],
  ['auto', [], null],
  ['198.51.100.10', [lo, wired, wireless], wireless],
  ['198.51.100.10', [lo, wired], null],
  ['127.0.0.1', [wired, lo], lo],
])('%s among %j', (chosen, all, expected) => expect(chooseInterface(all, chosen)).toEqual(expected));

test('every address of loopback is this computer, as long as loopback is there', () => {
  expect(chooseInterface([lo], '127.0.0.9')).toMatchObject({ name: 'lo', address: '127.0.0.9' });
  expect(chooseInterface([wired], '127.0.0.9')).toBeNull();
});

test('an interface that goes and returns is let go and taken up', () => {
  const seen = [[lo, wired], [lo], [lo, wired]].map((all) => chooseInterface(all, '192.0.2.10')?.name ?? null);
  expect(seen).toEqual(['eth0', null, 'eth0']);
});

test.each([
  [lo, '127.255.255.255'],
  [wired, '192.0.2.255'],
  [one('en0', '2.1.2.3', '255.0.0.0'), '2.255.255.255'],
  [one('en0', '10.9.8.7', '255.255.252.0'), '10.9.11.255'],
])('broadcast of %j', (info, address) => expect(broadcastOf(info)).toBe(address));

test('this computer has loopback', () => {
  expect(listInterfaces()).toContainEqual(expect.objectContaining({ address: '127.0.0.1', loopback: true }));
});

test('what a socket says is put in plain words, with what to look at', () => {
  const said = (code: string) => plainTrouble(Object.assign(new Error(`send ${code}`), { code }));
  expect(said('ENETUNREACH')).toMatch(/cannot be reached.*cable/);
  expect(said('EPERM')).toMatch(/firewall/);
  expect(said('EWEIRD')).toMatch(/send EWEIRD/);
});

describe('following the plan of addresses', () => {
  const plan = (network: string, prefix: number): Network => ({
    id: network,
    rev: 1,
    name: network,
    network,
    prefix,
    dhcp: false,
    standIn: false,
    ranges: [],
  });

  test('the interface that lies in a plan is taken, the first plan first', () => {
    const plans = [plan('198.51.100.0', 24), plan('192.0.2.0', 24)];
    expect(chooseInterface([lo, wired, wireless], 'plan', plans)).toBe(wireless);
    expect(chooseInterface([lo, wired], 'plan', plans)).toBe(wired);
  });

  test('where no plan fits, the first wired one', () => {
    expect(chooseInterface([lo, wireless, wired], 'plan', [plan('10.0.0.0', 8)])).toBe(wired);
    expect(chooseInterface([lo, wireless, wired], 'plan', [])).toBe(wired);
  });

  test('each protocol has its own, or Art-Net goes along with sACN', () => {
    const choose = (sacn: string, artnet: string) =>
      chooseInterfaces([lo, wired, wireless], { interface: sacn, artnetInterface: artnet }, [plan('127.0.0.0', 8)]);
    expect(choose('auto', 'same')).toEqual({ sacn: wired, artnet: wired });
    expect(choose('198.51.100.10', 'plan')).toEqual({ sacn: wireless, artnet: lo });
    expect(choose('auto', '203.0.113.1')).toEqual({ sacn: wired, artnet: null });
  });
});

test.each([
  ['no-such-wlan0', 'unknown'],
  ['wlx0a1b', 'wireless'],
  ['Wi-Fi', 'wireless'],
  ['veth9f', 'virtual'],
  ['utun3', 'virtual'],
  ['Ethernet 2', 'wired'],
  ['en7', 'wired'],
])('%s is %s by its name, where the system does not tell', (name, medium) =>
  expect(mediumOf(name, false)).toBe(medium),
);
