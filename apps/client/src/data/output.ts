/** Taking and giving back from this page. */
import { wireKey, type SlotAddress } from '@taxiarch/core/base/address';
import type { OutputReport } from '@taxiarch/core/whole/contract';
import type { Universe } from '@taxiarch/core/show/records';
import { call } from './api';
import { clientId } from './client';
import { feed } from './feed';
import { namedPerson, whoIsHere } from './person';
import { staysTaken } from './preferences';

/** Making safe never waits for anybody's name. */
export const makeHot = async (hot: boolean): Promise<OutputReport> =>
  call('makeHot', { body: { hot, by: hot ? await whoIsHere() : namedPerson() } });

/** Takes slots at levels, null for as they are received now; keys are addresses or runs, as in `3/1-24`. */
export const take = async (slots: Readonly<Record<string, number | null>>): Promise<OutputReport> =>
  call('take', { body: { client: clientId, by: await whoIsHere(), slots, stay: staysTaken.read() === 'yes' } });

/** Gives back some of what this page took; all of it if `slots` is left out. */
export const giveBack = (slots?: readonly string[]): Promise<OutputReport> =>
  call('giveBack', { body: { client: clientId, ...(slots && { slots }) } });

/** Gives back everything that anybody took. */
export const giveBackAll = (): Promise<OutputReport> => call('giveBack', { body: {} });

/** Changes levels of slots taken here, at the speed of a finger. */
export function setLevels(
  universes: readonly Universe[],
  levels: readonly (readonly [at: SlotAddress, level: number])[],
): void {
  for (const { number, protocol, wire } of universes) {
    const here = levels.filter(([at]) => at.universe === number);
    if (here.length > 0)
      feed.sendLevels(
        wireKey({ protocol, number: wire }),
        here.map(([at, level]) => [at.channel - 1, level] as const),
      );
  }
}

/** Whether this page holds a channel. */
export const holdsHere = (output: OutputReport | undefined, universe: number, channel: number): boolean =>
  output?.holds.some(
    (hold) =>
      feed.holder !== '' &&
      hold.holder === feed.holder &&
      hold.universe === universe &&
      hold.runs.some(([from, to]) => from <= channel && channel <= to),
  ) ?? false;
