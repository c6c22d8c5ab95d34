/** The demo show in memory: its stand-ins, Taxiarch that listens to them, and hands that do something to either. */
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { openStandIns } from '../../apps/standins/src/whole';
import { openVisualiser } from '../../apps/standins/src/visualiser/whole';
import { meanwhile, pass, startClock } from './clock';
import { request } from './http';
import { Listener } from './listener';

export const PORTS = { sacn: 5568, artnet: 6454, panel: 7630 };
const EXCHANGE = { mdns: 5353, citp: 4809 };

/** Asks a stand-in’s panel, as a browser would. */
export async function panel<T>(address: string, knob: string, given?: object): Promise<T> {
  const body = given && JSON.stringify(given);
  const { status, text } = await meanwhile(request(`${address}:${PORTS.panel}`, `/${knob}`, body));
  if (status !== 200) throw new Error((JSON.parse(text) as { why: string }).why);
  return JSON.parse(text) as T;
}

/** Opens it; `chance` is what the stand-ins throw dice with. */
export async function openWorld(chance: () => number, records: ShowRecords = nightFerry()): Promise<Listener> {
  startClock();
  Math.random = chance;
  globalThis.fetch = async (where, init) => {
    const { host, pathname } = new URL(String(where));
    const { status, text } = await request(host, pathname, init?.body as string | undefined);
    return new Response(text, { status });
  };
  await meanwhile(openVisualiser(PORTS, EXCHANGE));
  await meanwhile(openStandIns(PORTS, EXCHANGE, 2217));
  const listener = await meanwhile(Listener.open(records, PORTS));
  await pass(1000);
  return listener;
}
