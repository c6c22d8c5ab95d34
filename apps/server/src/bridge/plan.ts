/** What of the show the server's first thread knows: all but what there are many thousands of. */
import { wireKey } from '@taxiarch/core/base/address';
import type { Change } from '@taxiarch/core/show/edit';
import { reachOf, type Reach } from '@taxiarch/core/network/flow';
import { addressesOf } from '@taxiarch/core/network/ip';
import { rigOf } from '@taxiarch/core/rig/patch';
import { KINDS, emptyShow, type Kind, type ShowRecords } from '@taxiarch/core/show/records';
import type { ToEngine } from './engineMessages';

/** Kinds that stay with the show's own thread */
const HEAVY = ['type', 'lamp', 'run', 'snapshot', 'mark'] as const;
export type PlanKind = Exclude<Kind, (typeof HEAVY)[number]>;
const PLAN_KINDS = KINDS.filter((kind): kind is PlanKind => !(HEAVY as readonly Kind[]).includes(kind));

/** The light kinds, and which slots controls reach, which takes the lamps to work out */
export type PlanView = Pick<ShowRecords, PlanKind> & { readonly reach: readonly Reach[] };

export const emptyPlan = (): PlanView => ({ ...emptyShow(), reach: [] });

const reach = (records: ShowRecords): readonly Reach[] =>
  records.control.length > 0 ? reachOf(records, rigOf(records).patch) : [];

export const planOf = (records: ShowRecords): PlanView => ({
  ...(Object.fromEntries(PLAN_KINDS.map((kind) => [kind, records[kind]])) as Pick<ShowRecords, PlanKind>),
  reach: reach(records),
});

/** Those parts of the plan that an edit can have changed. */
export function planAfter(records: ShowRecords, changes: readonly Change[]): Partial<PlanView> {
  const touched = new Set(changes.map(({ kind }) => kind));
  const lists = PLAN_KINDS.filter((kind) => touched.has(kind)).map((kind) => [kind, records[kind]]);
  return {
    ...Object.fromEntries(lists),
    ...((records.control.length > 0 || touched.has('control')) && { reach: reach(records) }),
  };
}

/** The plan, as the engine wants it. */
export const orderOf = (plan: PlanView): Extract<ToEngine, { type: 'plan' }> => ({
  type: 'plan',
  universes: plan.universe.map(({ protocol, wire, merge }) => ({ key: wireKey({ protocol, number: wire }), merge })),
  networks: plan.network,
  machines: {
    addresses: plan.machine.flatMap((machine) => addressesOf(machine).map(({ text }) => text)),
    macs: plan.machine.flatMap(({ interfaces }) => interfaces.map(({ mac }) => mac)).filter((mac) => mac !== ''),
  },
  router: { routes: plan.route, controls: plan.control, reach: plan.reach },
});
