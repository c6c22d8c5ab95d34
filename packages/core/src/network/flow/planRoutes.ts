/** Routes planned in one act: for many universes at once, and as the form of one writes them. */
import { formatWire, lastWireNumber, type WireUniverse } from '../../base/address';
import { ok, refuse, type Result } from '../../base/result';
import { added, countOf, type Plan } from '../../show/edit';
import { PLAIN_INPUT, PLAIN_ROUTE, type Route, type ShowRecords } from '../../show/records';
import { findRouteLoop, routeText } from '../../signal/route';

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
): Result<Plan> {
  if (universes.length === 0) return refuse('nothing', 'Choose at least one universe.');
  if (to.number + universes.length - 1 > lastWireNumber(to.protocol))
    return refuse('out-of-range', 'The last of them would lie beyond what the protocol can number.');
  const order = Math.max(0, ...records.route.map((one) => one.order)) + 1;
  const routes: Route[] = [];
  for (const [i, number] of universes.entries()) {
    const planned = records.universe.find((one) => one.number === number);
    if (!planned) return refuse('not-found', `Universe ${number} is not in the show.`);
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
  if (clash)
    return refuse('taken', `The route ${taken.get(formatWire(clash.out))} sends ${formatWire(clash.out)} already.`);
  const way = findRouteLoop([...records.route, ...routes]);
  if (way !== undefined) return refuse('not-possible', `These routes would feed themselves: ${way}.`);
  return ok({
    sentence: `Planned ${countOf(routes.length, 'route')}`,
    changes: routes.map((one) => added('route', one)),
    lines: routes.map((one) => ({ subject: one.name, before: '', after: routeText(one, formatWire) })),
  });
}
