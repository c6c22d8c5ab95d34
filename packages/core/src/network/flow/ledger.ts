/** The ledger: for every show universe who carries it, how it is merged, where it leaves, whom it feeds, and how it stands. */
import { readUniverses, wireKey, type WireUniverse } from '../../base/address';
import type { RouteReport } from '../../signal/route';
import type { UniverseReport } from '../../signal/stream';
import type { MachineEntry } from '../node';
import type { Patch } from '../../rig/patch';
import type { Route, ShowRecords, Universe } from '../../show/records';
import { outletsByUniverse, type PathOutlet, type PathSender, pathSenders } from './paths';
import { sendersOf } from './senders';
import { sendersByUniverse } from './sends';

/** What of the wire the ledger asks; a live report has it. */
export interface FlowHeard {
  readonly universes: readonly UniverseReport[];
  readonly routes: readonly RouteReport[];
}

export interface LedgerRoute {
  readonly route: Route;
  readonly running: boolean;
}

export interface LedgerRow {
  readonly universe: Universe;
  readonly wire: WireUniverse;
  readonly report: UniverseReport | undefined;
  readonly senders: readonly PathSender[];
  /** Routes that make this universe, and routes that take from it */
  readonly madeBy: readonly LedgerRoute[];
  readonly takenBy: readonly LedgerRoute[];
  readonly outlets: readonly PathOutlet[];
  /** Lamps and runs of pixels on it */
  readonly lamps: number;
  readonly lampIds: ReadonlySet<string>;
  readonly placeIds: ReadonlySet<string>;
}

/** One row for each universe of the show, by number. */
export function ledger(
  records: Pick<ShowRecords, 'universe' | 'machine' | 'route'>,
  patch: Patch,
  live: FlowHeard | undefined,
  entries: readonly MachineEntry[],
): LedgerRow[] {
  const senders = sendersByUniverse(sendersOf(records.machine));
  const outlets = outletsByUniverse(entries, records.universe);
  const reports = new Map(live?.universes.map((one) => [one.key, one]));
  const running = new Set(live?.routes.filter((one) => one.running).map(({ id }) => id));
  const madeBy = new Map<number, LedgerRoute[]>();
  const takenBy = new Map<number, LedgerRoute[]>();
  const put = (map: Map<number, LedgerRoute[]>, wire: WireUniverse, route: Route) => {
    const there = map.get(wireKey(wire)) ?? [];
    map.set(wireKey(wire), [...there, { route, running: running.has(route.id) }]);
  };
  for (const route of records.route) {
    put(madeBy, route.out, route);
    for (const { wire } of route.inputs) put(takenBy, wire, route);
  }
  return [...records.universe]
    .sort((a, b) => a.number - b.number)
    .map((universe) => {
      const wire = { protocol: universe.protocol, number: universe.wire };
      const key = wireKey(wire);
      const patched = new Set(patch.universe(universe.number).map((span) => span.patched.lamp));
      return {
        universe,
        wire,
        report: reports.get(key),
        senders: pathSenders(universe, senders.get(universe.number) ?? [], reports.get(key)),
        madeBy: madeBy.get(key) ?? [],
        takenBy: takenBy.get(key) ?? [],
        outlets: outlets.get(universe.number) ?? [],
        lamps: patched.size,
        lampIds: new Set([...patched].map(({ id }) => id)),
        placeIds: new Set([...patched].flatMap(({ placeId }) => placeId ?? [])),
      };
    });
}

/** Whether a universe is heard from a sender and leaves by a port that passes signal. */
export const reachesPort = ({ senders, outlets }: LedgerRow): boolean =>
  senders.some(({ heard }) => heard) && outlets.some(({ heard }) => heard);

/**
 * How the senders of a universe become one: `HTP of 2 senders`, `Bridge desk by priority 120`, and ports that
 * merge otherwise. Levels are compared among equals only: sACN's highest priority counts first (ANSI E1.31-2018,
 * 6.2.3); Art-Net has none.
 */
export function mergeText({ universe, senders, outlets }: LedgerRow): string {
  const other = [...new Set(outlets.map(({ merge }) => merge))].filter(
    (merge) => merge !== null && merge !== universe.merge,
  );
  const words = other.map((merge) => (merge === 'none' ? 'not merged' : merge!.toUpperCase()));
  return `${amongSenders(universe.merge, senders)}${words.length > 0 ? `, at ports ${words.join(' and ')}` : ''}`;
}

function amongSenders(merge: Universe['merge'], senders: readonly PathSender[]): string {
  const mode = merge.toUpperCase();
  if (senders.length < 2) return mode;
  if (senders.some(({ priority, slotPriority }) => priority !== null && slotPriority))
    return `by the priority of each slot, then ${mode}`;
  const top = Math.max(...senders.map(({ priority }) => priority ?? 0));
  const equals = senders.filter(({ priority }) => (priority ?? 0) === top);
  if (equals.length === 1) return `${equals[0]!.name} by priority ${top}`;
  return equals.length === senders.length
    ? `${mode} of ${senders.length} senders`
    : `${mode} of the ${equals.length} senders with priority ${top}`;
}

/**
 * Rows that a person asks for by universe (`3`, `u3`, `1-4, 9`), lamp (`lamp 101` or part of its name),
 * machine or sender (part of its name); all rows for empty text.
 */
export function filterLedger(rows: readonly LedgerRow[], text: string, patch: Patch, placeId: string): LedgerRow[] {
  const wanted = text.trim().toLowerCase();
  const numbers = /^u?[\d\s,;–-]+$/.test(wanted) ? readUniverses(wanted.replace('u', '')) : undefined;
  const universes = numbers?.ok && wanted !== '' ? new Set(numbers.value) : undefined;
  const lamp = /^lamp\s+(\d+)$/.exec(wanted)?.[1];
  const lamps =
    wanted === '' || universes !== undefined
      ? []
      : patch
          .all()
          .filter((one) =>
            lamp === undefined ? one.lamp.name.toLowerCase().includes(wanted) : String(one.lamp.number) === lamp,
          )
          .map((one) => one.lamp.id);
  return rows.filter((row) => {
    if (placeId !== '' && !row.placeIds.has(placeId)) return false;
    if (wanted === '') return true;
    if (universes) return universes.has(row.universe.number);
    if (lamps.some((id) => row.lampIds.has(id))) return true;
    if (lamp !== undefined) return false;
    return [
      row.universe.name,
      ...row.senders.map(({ name }) => name),
      ...row.outlets.map(({ machine }) => machine),
    ].some((name) => name.toLowerCase().includes(wanted));
  });
}
