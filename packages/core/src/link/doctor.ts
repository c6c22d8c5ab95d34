/**
 * The doctor of a link between a sender and a visualiser: a short list, worked through live. What can
 * be seen on the wire is seen; the rest is asked of the person who stands there.
 */
import { wireKey } from '../address';
import { isSentBy, rangesWith, sentTo } from '../flow';
import { addressesOf } from '../ip';
import { layRuns } from '../pixel';
import type { Link, ShowRecords } from '../show';
import type { Case, DoctorLine, Heard } from './doctorLine';
import { firewall, interfaces, mask, together } from './ends';
import { onTheWire, order, protocol } from './heard';
import { linkedUniverses } from './linked';
import { base, enough } from './numbering';

export type { DoctorLine, DoctorState } from './doctorLine';

/** In the order in which a person works through them. */
const CHECKS: readonly ((one: Case) => DoctorLine)[] = [
  together,
  mask,
  interfaces,
  protocol,
  onTheWire,
  base,
  enough,
  order,
  firewall,
];

const fed = new WeakMap<ShowRecords, ReadonlySet<number>>();

/** Universes that feed lamps or pixels; found once for each show. */
function fedUniverses(records: ShowRecords): ReadonlySet<number> {
  let universes = fed.get(records);
  if (!universes) {
    universes = new Set([
      ...records.lamp.flatMap(({ universe, blocks }) => [universe, ...blocks.map((at) => at.universe)]),
      ...layRuns(records.run, records.machine).flatMap(({ segments }) => segments.map((at) => at.universe)),
    ]);
    fed.set(records, universes);
  }
  return universes;
}

/** All lines; none if the link's ends are gone. */
export function doctor(link: Link, records: ShowRecords, live: Heard): DoctorLine[] {
  const source = records.source.find(({ id }) => id === link.sourceId);
  const visualiser = records.machine.find(({ id }) => id === link.machineId);
  if (!source || !visualiser) return [];
  const sender =
    records.machine.find(({ name }) => name === source.name) ??
    records.machine.find((machine) => addressesOf(machine).some(({ text }) => text === source.address));
  const universes = linkedUniverses(link, source, records.universe);
  const reports = new Map(live.universes.map((one) => [one.key, one]));
  const streams = universes.flatMap(({ universe, sent }) =>
    (sent && sent.protocol === link.protocol ? (reports.get(wireKey(sent))?.streams ?? []) : [])
      .filter((stream) => !stream.lost && !stream.own && isSentBy(stream, source))
      .map((stream) => ({ universe, stream })),
  );
  const addresses = new Set(addressesOf(visualiser).map(({ text }) => text));
  const node =
    live.nodes.find((one) => !one.gone && addresses.has(one.address)) ??
    live.nodes.find((one) => !one.gone && one.shortName === visualiser.name);
  const planned = new Map(records.universe.map((one) => [one.number, one]));
  const used = [...fedUniverses(records)]
    .filter((universe) =>
      rangesWith(source, universe).some(
        (range) => sentTo(range, universe, planned.get(universe))?.protocol === link.protocol,
      ),
    )
    .sort((a, b) => a - b);
  const { listeningSince } = live;
  const one: Case = { link, records, source, sender, visualiser, universes, streams, node, used, listeningSince };
  return CHECKS.map((check) => check(one));
}
