/** Which stations are joined, and when one is gone; the talk itself is tested against the stand-ins (`scripts/exchange.test.ts`). */
import multicastDns from 'multicast-dns';
import { eventually } from '../testing/serverProcess';
import { isGone, isOfGroup, Stations } from './stations';

const worker = Number(process.env['JEST_WORKER_ID'] ?? 1);
const MDNS = 19_300 + worker;

test('one of our group, or of none, is joined; another group’s is not', () => {
  const ours = (group: string, own: string) => isOfGroup({ group }, { group: own });
  expect([ours('Ferry', 'Ferry'), ours('', 'Ferry'), ours('Quay', 'Ferry'), ours('Ferry', '')]).toEqual([
    true,
    true,
    false,
    false,
  ]);
});

test('one that was not heard of for longer than its records live is gone', () => {
  expect([isGone(0, 120_000), isGone(0, 130_000), isGone(0, 130_001)]).toEqual([false, false, true]);
});

test('one that names an address of another network is left alone; a near one is listed', async () => {
  const iface = {
    ...{ name: 'lo', address: '127.0.0.1', netmask: '255.0.0.0', mac: '', loopback: true, up: true },
    medium: 'loopback' as const,
  };
  const setup = { stationId: '7ff00000-0000-4000-8000-000000000001', name: 'Taxiarch', group: 'Default' };
  const stations = new Stations({ ...setup, iface, mdnsPort: MDNS }, () => undefined);
  await stations.start();
  const others = multicastDns({ port: MDNS, interface: '127.0.0.1', bind: '0.0.0.0', loopback: true, reuseAddr: true });
  const announce = (id: number, name: string, address: string, group: string) => {
    const stationId = `7ff00000-0000-4000-8000-00000000000${id}`;
    const service = `${group}._mvrxchange._tcp.local`;
    const full = `${stationId}.${service}`;
    others.respond({
      answers: [
        { name: service, type: 'PTR', ttl: 120, data: full },
        { name: full, type: 'SRV', ttl: 120, data: { port: 9, target: `${stationId}.local` } },
        {
          name: full,
          type: 'TXT',
          ttl: 120,
          data: [`StationName=${name}`, `StationUUID=${stationId}`],
        },
        { name: `${stationId}.local`, type: 'A', ttl: 120, data: address },
      ],
    });
  };
  const names = () => {
    announce(2, 'Elsewhere', '10.9.8.7', 'Default');
    announce(3, 'Other group', '127.0.0.9', 'Quay');
    announce(4, 'Near', '127.0.0.9', 'Default');
    return stations.report().list.map(({ name }) => name);
  };
  try {
    await eventually(names, (list) => list.length > 0);
    expect(names()).toEqual(['Near']);
  } finally {
    others.destroy();
    await stations.end();
  }
});
