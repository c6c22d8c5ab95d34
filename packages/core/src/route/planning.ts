/** Routes planned in one act: for many universes at once, and as the form of one writes them. */
import { formatWire, lastWireNumber, read, refuse, type Read, type WireUniverse } from '../address';
import { added, countOf, type Plan } from '../patch';
import { PLAIN_INPUT, PLAIN_ROUTE, findRouteLoop, type Route, type ShowRecords } from '../show';
import { routeText } from './parts';

export interface ManyRoutes {
  /** Show universes to be sent on, in this order */
  readonly universes: readonly number[];
  /** Where the first goes, the others following it */
  readonly to: WireUniverse;
  readonly over: Partial<Route>;
}

/** One route for each universe, or a sentence that says why not. */
export function planManyRoutes(
  records: Pick<ShowRecords, 'universe' | 'route'>,
  { universes, to, over }: ManyRoutes,
  newId: () => string,
): Read<Plan> {
  if (universes.length === 0) return refuse('Choose at least one universe.');
  if (to.number + universes.length - 1 > lastWireNumber(to.protocol))
    return refuse('The last of them would lie beyond what the protocol can number.');
  const order = Math.max(0, ...records.route.map((one) => one.order)) + 1;
  const routes: Route[] = [];
  for (const [i, number] of universes.entries()) {
    const planned = records.universe.find((one) => one.number === number);
    if (!planned) return refuse(`Universe ${number} is not in the show.`);
    routes.push({
      ...PLAIN_ROUTE,
      ...over,
      id: newId(),
      rev: 0,
      name: `${number} ${planned.name}`.trim(),
      order: order + i,
      inputs: [{ ...PLAIN_INPUT, wire: { protocol: planned.protocol, number: planned.wire } }],
      out: { protocol: to.protocol, number: to.number + i },
    });
  }
  const taken = new Map(records.route.map((one) => [formatWire(one.out), one.name]));
  const clash = routes.find(({ out }) => taken.has(formatWire(out)));
  if (clash) return refuse(`The route ${taken.get(formatWire(clash.out))} sends ${formatWire(clash.out)} already.`);
  const way = findRouteLoop([...records.route, ...routes]);
  if (way !== undefined) return refuse(`These routes would feed themselves: ${way}.`);
  return read({
    sentence: `Planned ${countOf(routes.length, 'route')}`,
    changes: routes.map((one) => added('route', one)),
    lines: routes.map((one) => ({ subject: one.name, before: '', after: routeText(one, formatWire) })),
  });
}
