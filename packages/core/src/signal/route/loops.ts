/** Routes that would feed themselves, through any number of others. */
import { formatWire, wireKey, type WireUniverse } from '../../base/address';
import { OWN_NAME } from '../stream';
import type { RouteWay } from './way';

/** Wire universes whose values a route's own output could change. An input held to another sender hears nothing of ours. */
const fedBy = ({ inputs, parts }: Pick<RouteWay, 'inputs' | 'parts'>): WireUniverse[] => [
  ...inputs.filter(({ sender }) => sender === '' || sender === OWN_NAME).map(({ wire }) => wire),
  ...parts.flatMap(({ from }) => (from ? [from.wire] : [])),
];

/** The way round as `sACN 1 → sACN 2 → sACN 1`, for the first loop there is; undefined if there is none. */
export function findRouteLoop(routes: readonly Pick<RouteWay, 'inputs' | 'parts' | 'out'>[]): string | undefined {
  const next = new Map<number, WireUniverse[]>();
  for (const route of routes)
    for (const from of fedBy(route)) {
      const there = next.get(wireKey(from));
      if (there) there.push(route.out);
      else next.set(wireKey(from), [route.out]);
    }
  const done = new Set<number>();
  /** Depth first without recursion: the path that is open, and for each step of it which way was taken last. */
  for (const route of routes) {
    const path: { at: WireUniverse; taken: number }[] = [{ at: route.out, taken: 0 }];
    const open = new Set([wireKey(route.out)]);
    while (path.length > 0) {
      const last = path[path.length - 1]!;
      const to = next.get(wireKey(last.at))?.[last.taken];
      last.taken += 1;
      if (to === undefined) {
        done.add(wireKey(last.at));
        open.delete(wireKey(last.at));
        path.pop();
      } else if (open.has(wireKey(to))) {
        const begin = path.findIndex(({ at }) => wireKey(at) === wireKey(to));
        return [...path.slice(begin).map(({ at }) => at), to].map(formatWire).join(' → ');
      } else if (!done.has(wireKey(to))) {
        open.add(wireKey(to));
        path.push({ at: to, taken: 0 });
      }
    }
  }
  return undefined;
}
