/** Hot and safe, take and give back. */
import { readRange, wireKey } from '@taxiarch/core/base/address';
import type { Universe } from '@taxiarch/core/show/records';
import type { EngineHost } from '../bridge/host';
import type { TakeOrder } from '../bridge/engineMessages';
import type { Feed } from '../feed/feed';
import type { ShowDoor } from '../bridge/showDoor';
import type { Plugs } from '../plug/plugs';
import type { Handlers } from './api';
import { ProblemError } from '../problemError';

type OutputHandlers = Pick<Handlers, 'readOutput' | 'makeHot' | 'take' | 'giveBack'>;

export function outputHandlers(host: EngineHost, show: ShowDoor, feed: Feed, plugs: Plugs): OutputHandlers {
  /** Key of the wire universe by which a show universe is planned to travel. */
  const keyOf = (number: number): number => {
    const universe = show.plan().universe.find((one: Universe) => one.number === number);
    if (!universe)
      throw new ProblemError('not-possible', `Universe ${number} is not in the show, so it cannot be taken.`);
    return wireKey({ protocol: universe.protocol, number: universe.wire });
  };

  const rangeOf = (text: string) => {
    const range = readRange(text);
    if (!range.ok) throw new ProblemError('not-understood', range.why);
    return range.value;
  };

  return {
    readOutput: () => host.now().output,

    makeHot: async ({ body: { hot, by } }) => {
      // What leaves a plug stops before anything is waited for.
      if (!hot) plugs.makeSafe();
      await host.ask({ type: 'hot', hot, by });
      return host.now().output;
    },

    take: async ({ body: { client, by, slots, stay = false } }) => {
      const universes = new Map<number, { show: number; levels: Map<number, number | null> }>();
      for (const [text, level] of Object.entries(slots)) {
        const { universe, from, to } = rangeOf(text);
        const key = keyOf(universe);
        const there = universes.get(key) ?? { show: universe, levels: new Map<number, number | null>() };
        universes.set(key, there);
        for (let channel = from; channel <= to; channel += 1) there.levels.set(channel - 1, level);
      }
      const order: TakeOrder = {
        client,
        by,
        stay,
        universes: [...universes].map(([key, { show, levels }]) => ({ key, show, levels: [...levels] })),
      };
      if (!host.now().output.hot)
        throw new ProblemError('safe', 'Taxiarch is safe and sends nothing. Make it hot first.');
      const refused = await host.ask({ type: 'take', order });
      if (refused) throw new ProblemError('taken', refused);
      feed.mind(client);
      return host.now().output;
    },

    giveBack: async ({ body: { client, slots } }) => {
      const wanted = slots?.flatMap((text) => {
        const { universe, from, to } = rangeOf(text);
        const key = keyOf(universe);
        return Array.from({ length: to - from + 1 }, (_, i) => [key, from - 1 + i] as const);
      });
      await host.ask({ type: 'giveBack', order: { client, slots: wanted } });
      return host.now().output;
    },
  };
}
