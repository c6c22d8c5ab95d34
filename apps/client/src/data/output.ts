/** Taking and giving back from this page. */
import type { OutputReport } from '@taxiarch/core/contract';
import { wireKey, type SlotAddress } from '@taxiarch/core/address';
import type { Universe } from '@taxiarch/core/show';
import { post } from './api';
import { feed } from './feed';
import { clientId } from './client';
import { personName, staysTaken } from './kept';

export const makeHot = (hot: boolean) => post<OutputReport>('/api/output/hot', { hot, by: personName.read() });

/** Takes slots at levels; keys are addresses or runs, as in `3/1-24`. */
export const take = (slots: Readonly<Record<string, number>>) =>
  post<OutputReport>('/api/output/take', {
    client: clientId,
    by: personName.read(),
    slots,
    stay: staysTaken.read() === 'yes',
  });

/** Gives back some of what this page took; all of it if `slots` is left out. */
export const giveBack = (slots?: readonly string[]) =>
  post<OutputReport>('/api/output/give-back', { client: clientId, ...(slots && { slots }) });

/** Gives back everything that anybody took. */
export const giveBackAll = () => post<OutputReport>('/api/output/give-back', {});

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
      hold.client === clientId &&
      hold.universe === universe &&
      hold.runs.some(([from, to]) => from <= channel && channel <= to),
  ) ?? false;
