/** What is disturbed in each case, drawn from its number and the seed alone. */
import { sendersOf } from '@taxiarch/core/network/flow';
import { mainAddress } from '@taxiarch/core/network/ip';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { random } from '@taxiarch/core/truth/fault';
import { boxDisturbed } from './boxes';
import { planWrong } from './plans';
import type { Disturbance, Random, Ship } from './ship';
import { strangerAt, type Known, type Target } from './stranger';

const demo = nightFerry();
/** Addresses that nobody in the demo has */
const ADDRESS = (i: number): string => `127.0.0.${150 + (i % 90)}`;

const targets: readonly Target[] = [
  ...demo.universe.map(({ protocol, wire, number }): Target => ({
    protocol,
    number: wire,
    nodes: demo.machine
      .filter(({ ports: all, controller }) =>
        controller
          ? number >= controller.firstUniverse && number < controller.firstUniverse + controller.universes
          : all.some(({ use, universe }) => use === 'out' && universe === number),
      )
      .map(mainAddress),
    planned: true,
    show: number,
  })),
  ...[200, 300, 7000].map((number): Target => ({ protocol: 'sacn', number, nodes: [], planned: false, show: null })),
  { protocol: 'artnet', number: 900, nodes: [], planned: false, show: null },
];

/** Senders that are planned, as a stranger can hear them. */
async function knownOf(ship: Ship): Promise<Known[]> {
  const { universes } = await ship.live();
  const streams = universes.flatMap((universe) => universe.streams);
  return sendersOf(demo.machine).flatMap(({ name }) => {
    const cid = streams.find((of) => of.name === name)?.cid;
    return cid ? [{ name, cid }] : [];
  });
}

async function drawOne(next: Random, ship: Ship, address: string): Promise<Disturbance> {
  const sort = next();
  if (sort < 0.35) return strangerAt(next, address, targets, await knownOf(ship));
  return sort < 0.8 ? boxDisturbed(next, ship) : planWrong(next, ship.records());
}

/** One, two or three at once. */
export async function drawCase(seed: number, number: number, ship: Ship): Promise<readonly Disturbance[]> {
  const next = random(seed * 7919 + number);
  for (let i = 0; i < 5; i += 1) next();
  const draw = next();
  const count = draw < 0.8 ? 1 : draw < 0.95 ? 2 : 3;
  const all: Disturbance[] = [];
  for (let i = 0; i < count; i += 1) all.push(await drawOne(next, ship, ADDRESS(number * 3 + i)));
  return all;
}
