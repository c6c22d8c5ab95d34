/** A large rig that another station commits: how soon it is offered to a person, and compared once they ask. */
import type { ExchangeReply, ImportReply, LiveReport } from '@taxiarch/core/whole/contract';
import { ratio, wait, type Extent, type Figure } from './figure';
import { base, get, withProgram, withServer } from './server';

const MDNS = 36_353;
const LOOK_MS = 20;
const LIVE_MS = 50;
const MOST_S = 3;
const MOST_LIVE_MS = 250;

const send = async <T>(method: string, path: string, body: object): Promise<T> =>
  (await (
    await fetch(base + path, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json()) as T;

export async function measure(extent: Extent): Promise<Figure[]> {
  const lamps = extent.of(5000, 200);
  return withServer(['--mdns-port', String(MDNS)], () =>
    withProgram('largeStation', [lamps, MDNS], async (station) => {
      await send('PATCH', '/api/settings', { stations: true });
      const there = async () => (await get<ExchangeReply>('/api/exchange')).stations?.list[0];
      while (!(await there())?.joined) await wait(LOOK_MS);
      let slowest = 0;
      let over = false;
      const live = (async () => {
        while (!over) {
          const asked = performance.now();
          await get<LiveReport>('/api/live');
          slowest = Math.max(slowest, performance.now() - asked);
          await wait(LIVE_MS);
        }
      })();
      const began = performance.now();
      station.send('measured');
      const newest = async () => (await there())?.commits.at(-1);
      while ((await newest())?.comment !== 'measured') await wait(LOOK_MS);
      const offered = (performance.now() - began) / 1000;
      const { stationId } = (await there())!;
      const { fileId } = (await newest())!;
      const { id } = await send<{ id: string }>('POST', '/api/exchange/fetch', { stationId, fileId });
      let reply = await get<ImportReply>(`/api/import/${id}`);
      while (reply.state === 'working') {
        await wait(LOOK_MS);
        reply = await get<ImportReply>(`/api/import/${id}`);
      }
      const compared = (performance.now() - began) / 1000;
      over = true;
      await live;
      if (reply.state !== 'ready') throw new Error(reply.why);
      return [
        {
          figure: `a rig of ${lamps} lamps committed by a station, until it is offered to a person`,
          asked: `at most ${MOST_S} s`,
          seen: `${offered.toFixed(2)} s, ${ratio(offered, MOST_S)} of that`,
          met: offered <= MOST_S,
        },
        {
          figure: 'the same, fetched at once and compared lamp by lamp, from the commit on',
          asked: `at most ${MOST_S} s`,
          seen: `${compared.toFixed(2)} s, ${ratio(compared, MOST_S)} of that`,
          met: compared <= MOST_S,
        },
        {
          figure: 'live values asked for meanwhile, the slowest',
          asked: `at most ${MOST_LIVE_MS} ms`,
          seen: `${Math.round(slowest)} ms`,
          met: slowest <= MOST_LIVE_MS,
        },
      ];
    }),
  );
}
