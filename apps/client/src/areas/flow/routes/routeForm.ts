/** A route as a form, and the plan that it comes to. */
import { formatWire, type WireUniverse } from '@taxiarch/core/base/address';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { type Plan, recordPlan, type Tellers } from '@taxiarch/core/show/edit';
import { findRouteLoop, type RouteInput, type RouteMerge } from '@taxiarch/core/signal/route';
import { type Delivery, PLAIN_INPUT, PLAIN_ROUTE, type Route, type ShowRecords } from '@taxiarch/core/show/records';
import { wireFrom } from '@/data/routes';

export interface InputForm {
  readonly universe: string;
  readonly sender: string;
  readonly shift: string;
  readonly priority: string;
}

export interface RouteForm {
  readonly name: string;
  readonly inputs: readonly InputForm[];
  readonly merge: RouteMerge;
  readonly returns: Route['returns'];
  readonly out: string;
  readonly interface: string;
  readonly delivery: Delivery;
  readonly addresses: string;
  readonly priority: string;
  readonly master: string;
  /** sACN universe, or `yes` for ArtSync; empty for none */
  readonly sync: string;
  readonly comesBack: boolean;
}

export const PLAIN_INPUT_FORM: InputForm = { universe: '', sender: '', shift: '0', priority: '100' };

export const formOf = (route: Route | undefined): RouteForm => ({
  name: route?.name ?? '',
  inputs: route?.inputs.map(({ wire, sender, shift, priority }) => ({
    universe: formatWire(wire),
    sender,
    shift: String(shift),
    priority: String(priority),
  })) ?? [PLAIN_INPUT_FORM],
  merge: route?.merge ?? 'htp',
  returns: route?.returns ?? 'at once',
  out: route ? formatWire(route.out) : '',
  interface: route?.interface ?? '',
  delivery: route?.delivery ?? 'usual',
  addresses: route?.addresses.join(' ') ?? '',
  priority: String(route?.priority ?? 100),
  master: String(route?.master ?? 255),
  sync: route && route.sync > 0 ? String(route.sync) : '',
  comesBack: route?.comesBack ?? false,
});

const whole = (text: string): number => (/^-?\d{1,5}$/.test(text.trim()) ? Number(text.trim()) : NaN);

/** What a form would write; loops and a universe that is sent already are refused as the server would. */
export function planOf(form: RouteForm, base: Route | undefined, id: string, records: ShowRecords): Result<Plan> {
  const out = wireFrom(form.out, records.universe);
  if (!out.ok) return refuse('not-understood', `Where it goes: ${out.why}`);
  const inputs: RouteInput[] = [];
  for (const { universe, sender, shift, priority } of form.inputs) {
    const wire: Result<WireUniverse> = wireFrom(universe, records.universe);
    if (!wire.ok) return refuse('not-understood', `What comes in: ${wire.why}`);
    inputs.push({
      ...PLAIN_INPUT,
      wire: wire.value,
      sender: sender.trim(),
      shift: whole(shift || '0'),
      priority: whole(priority),
    });
  }
  const route: Route = {
    ...PLAIN_ROUTE,
    ...base,
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    order: base?.order ?? Math.max(0, ...records.route.map((one) => one.order)) + 1,
    name: form.name.trim() || `${form.inputs[0]?.universe ?? ''} to ${form.out}`.trim(),
    inputs,
    merge: form.merge,
    returns: form.returns,
    out: out.value,
    interface: form.interface,
    delivery: form.delivery,
    addresses: form.delivery === 'unicast' ? form.addresses.split(/[\s,;]+/).filter(Boolean) : [],
    priority: whole(form.priority),
    master: whole(form.master),
    sync: whole(form.sync || '0'),
    comesBack: form.comesBack,
  };
  const others = records.route.filter((one) => one.id !== route.id);
  const same = others.find((one) => formatWire(one.out) === formatWire(route.out));
  if (same)
    return refuse('taken', `The route ${same.name} sends ${formatWire(route.out)} already: add this input to it.`);
  const way = findRouteLoop([...others, route]);
  if (way !== undefined) return refuse('not-possible', `This route would feed itself: ${way}.`);
  return recordPlan('route', base, route, { tellers: TELLERS });
}

const inputText = ({ wire, sender, shift, priority }: RouteInput): string =>
  [
    formatWire(wire),
    sender && `from ${sender}`,
    shift !== 0 && `moved by ${shift}`,
    priority !== PLAIN_INPUT.priority && `priority ${priority}`,
  ]
    .filter(Boolean)
    .join(' ');

const TELLERS: Tellers<Route> = {
  order: null,
  inputs: (inputs) => inputs.map(inputText).join(', '),
  out: formatWire,
};
