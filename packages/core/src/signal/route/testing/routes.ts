/** Routes and their inputs, with what is left out as anybody would have it. */
import { PLAIN_INPUT, PLAIN_ROUTE, type Route } from '../../../show/records';
import type { RouteInput } from '..';

export const sacn = (number: number) => ({ protocol: 'sacn' as const, number });

export const input = (number: number, over: Partial<RouteInput> = {}): RouteInput => ({
  ...PLAIN_INPUT,
  wire: sacn(number),
  ...over,
});

/** From sACN 1 to sACN 9. */
export const route = (over: Partial<Route> = {}): Route => ({
  ...PLAIN_ROUTE,
  ...{ id: 'r', rev: 1, name: 'Over', order: 0, inputs: [input(1)], out: sacn(9) },
  ...over,
});
