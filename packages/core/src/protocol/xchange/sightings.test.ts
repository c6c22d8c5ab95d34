import fc from 'fast-check';
import { recordsOf, Sightings, type ServiceRecord } from '.';

const station = {
  ...{ name: 'Bridge desk', stationId: '11111111-1111-4111-8111-111111111111', group: 'Ferry' },
  ...{ address: '10.0.0.21', port: 4000 },
};
const all = (ttl?: number): ServiceRecord[] => {
  const { answers, additionals } = recordsOf(station, ttl);
  return [...answers, ...additionals];
};

test('what we tell of ourselves is what others put together, with how long it holds', () => {
  expect(new Sightings().hear(all(), '10.0.0.9').found).toEqual([{ ...station, ttl: 120 }]);
  expect(new Sightings().hear(all(0), '10.0.0.9').found).toEqual([{ ...station, ttl: 0 }]);
});

test('records that come one by one are put together; what is missing is asked for', () => {
  fc.assert(
    fc.property(fc.shuffledSubarray(all(), { minLength: 5 }), (records) => {
      const sightings = new Sightings();
      const heard = records.map((one) => sightings.hear([one], '10.0.0.9'));
      const found = heard.flatMap((one) => one.found);
      // Whatever came last, the station is known by then, but for an address that comes after all else.
      expect(found.at(-1)).toMatchObject({ stationId: station.stationId, port: 4000, group: 'Ferry' });
      expect(sightings.hear([all()[0]!], '10.0.0.9').found).toEqual([{ ...station, ttl: 120 }]);
    }),
  );
  const [pointer] = all();
  expect(new Sightings().hear([pointer!], '10.0.0.9')).toEqual({
    found: [],
    ask: ['SRV', 'TXT'].map((type) => ({ name: 'bridge desk.ferry._mvrxchange._tcp.local', type })),
  });
});

test('a goodbye of the pointer alone is one, and what was known is forgotten with it', () => {
  const sightings = new Sightings();
  sightings.hear(all(), '10.0.0.9');
  const [goodbye] = all(0);
  expect(sightings.hear([goodbye!], '10.0.0.9').found).toMatchObject([{ stationId: station.stationId, ttl: 0 }]);
  expect(sightings.hear([all()[0]!], '10.0.0.9')).toMatchObject({ found: [], ask: [{ type: 'SRV' }, { type: 'TXT' }] });
});

test('texts may be bytes; names are freed of what turns writing around; who gives no address is where it came from', () => {
  const bytes = new TextEncoder();
  const records = all()
    .filter(({ type }) => type !== 'A')
    .map((one) =>
      one.type === 'TXT'
        ? {
            ...one,
            data: [`StationName=Desk\u202E`, `StationUUID={${station.stationId.toUpperCase()}}`].map((text) =>
              bytes.encode(text),
            ),
          }
        : one,
    );
  expect(new Sightings().hear(records, '10.0.0.9').found).toMatchObject([
    { name: 'Desk', stationId: station.stationId, address: '10.0.0.9' },
  ]);
});

test('of several addresses of a station the one from which it spoke is taken', () => {
  const also = { name: `${station.stationId}.local`, type: 'A', data: '192.168.7.7' };
  for (const records of [
    [...all(), also],
    [also, ...all()],
  ])
    expect(new Sightings().hear(records, station.address).found).toMatchObject([{ address: station.address }]);
});

test('other services, and records that make no sense, are passed over', () => {
  const odd: ServiceRecord[] = [
    { name: 'x._http._tcp.local', type: 'SRV', data: { port: 80, target: 'x' } },
    { name: 'a.b._mvrxchange._tcp.local', type: 'SRV', data: 'nothing' },
    { name: 'a.b._mvrxchange._tcp.local', type: 'TXT', data: ['StationUUID=../../etc'] },
    { name: 'a.b._mvrxchange._tcp.local', type: 'NSEC' },
  ];
  expect(new Sightings().hear(odd, '10.0.0.9').found).toEqual([]);
});

test('a flood of stations makes room for the ones that come last', () => {
  const sightings = new Sightings();
  const named = (i: number) => {
    const id = `${i.toString(16).padStart(8, '0')}-0000-4000-8000-000000000000`;
    const { answers, additionals } = recordsOf({ ...station, name: `Desk ${i}`, stationId: id });
    return sightings.hear([...answers, ...additionals], '10.0.0.9').found;
  };
  for (let i = 0; i < 1000; i += 1) expect(named(i)).toHaveLength(1);
});
