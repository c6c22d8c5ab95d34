/** Hot and safe, take and give back. */
import Router from '@koa/router';
import { array, boolean, lazy, mixed, number, object, string } from 'yup';
import { readRange, wireKey } from '@taxiarch/core/address';
import type { GiveBackRequest, OutputReport, TakeRequest } from '@taxiarch/core/contract';
import type { Universe } from '@taxiarch/core/show';
import type { Feed } from '../live/feed';
import type { LiveHost } from '../live/host';
import type { TakeOrder } from '../live/output';
import type { ShowStore } from '../store/store';
import { ProblemError, require400 } from './problem';

const MOST_RANGES = 20_000;
const person = string().strict().trim().min(1).max(120);

const hotSchema = object({
  hot: boolean().strict().required('Say hot: true or hot: false.'),
  by: person.required('Say who does this: “by” is missing.'),
}).noUnknown();

const takeSchema = object({
  client: person.required('The client’s id is missing.'),
  by: person.required('Say who does this: “by” is missing.'),
  stay: boolean().strict(),
  slots: lazy((slots: unknown) =>
    object(
      Object.fromEntries(
        Object.keys(typeof slots === 'object' && slots !== null ? slots : {})
          .slice(0, MOST_RANGES)
          .map((key) => [
            key,
            number()
              .strict()
              .integer('Levels are whole numbers.')
              .min(0, 'Levels begin at 0.')
              .max(255, 'Levels end at 255.')
              .required(),
          ]),
      ),
    ).required('Say which slots: “slots” is missing.'),
  ),
}).noUnknown();

const giveBackSchema = object({
  client: person,
  slots: array().strict().of(mixed<string>().required()).max(MOST_RANGES),
}).noUnknown();

export function outputRoutes(host: LiveHost, store: ShowStore, feed: Feed): Router {
  const router = new Router({ prefix: '/api/output' });

  /** Key of the wire universe by which a show universe is planned to travel. */
  const keyOf = (number: number): number => {
    const universe = store.records().universe.find((one: Universe) => one.number === number);
    if (!universe)
      throw new ProblemError(422, 'Not in the show', `Universe ${number} is not in the show, so it cannot be taken.`);
    return wireKey({ protocol: universe.protocol, number: universe.wire });
  };

  const rangeOf = (text: string) => {
    const range = readRange(text);
    if (!range.ok) throw new ProblemError(400, 'Not understood', range.why);
    return range.value;
  };

  const reply = (): OutputReport => {
    const output = host.report()?.output;
    if (!output) throw new ProblemError(503, 'Not yet', 'The engine has just started; ask again in a second.');
    return output;
  };

  router.get('/', (ctx) => {
    ctx.body = reply();
  });

  router.post('/hot', async (ctx) => {
    const { hot, by } = require400<{ hot: boolean; by: string }>(hotSchema, ctx.request.body);
    await host.ask({ type: 'hot', hot, by });
    ctx.body = reply();
  });

  router.post('/take', async (ctx) => {
    const { client, by, slots, stay = false } = require400<TakeRequest>(takeSchema, ctx.request.body);
    const universes = new Map<number, { show: number; levels: Map<number, number> }>();
    for (const [text, level] of Object.entries(slots)) {
      const { universe, from, to } = rangeOf(text);
      const key = keyOf(universe);
      const there = universes.get(key) ?? { show: universe, levels: new Map<number, number>() };
      universes.set(key, there);
      for (let channel = from; channel <= to; channel += 1) there.levels.set(channel - 1, level);
    }
    if (universes.size === 0) throw new ProblemError(400, 'Not understood', 'Name at least one slot to take.');
    const order: TakeOrder = {
      client,
      by,
      stay,
      universes: [...universes].map(([key, { show, levels }]) => ({ key, show, levels: [...levels] })),
    };
    const refused = await host.ask({ type: 'take', order });
    if (refused) throw new ProblemError(409, 'Not taken', refused);
    feed.mind(client);
    ctx.body = reply();
  });

  router.post('/give-back', async (ctx) => {
    const { client, slots } = require400<GiveBackRequest>(giveBackSchema, ctx.request.body ?? {});
    const wanted = slots?.flatMap((text) => {
      const { universe, from, to } = rangeOf(String(text));
      const key = keyOf(universe);
      return Array.from({ length: to - from + 1 }, (_, i) => [key, from - 1 + i] as const);
    });
    await host.ask({ type: 'giveBack', order: { client, slots: wanted } });
    ctx.body = reply();
  });
  return router;
}
