/**
 * The doctor of a link between a sender and a visualiser: a short list, worked through live. What can
 * be seen on the wire is seen; the rest is asked of the person who stands there.
 */
import { wireKey } from '../../base/address';
import { universesOfLamp } from '../../rig/patch';
import { isSentBy, linesWith, sendersOf, sentTo } from '../../network/flow';
import { addressesOf } from '../../network/ip';
import { layRuns } from '../../rig/pixel';
import type { Link, ShowRecords } from '../../show/records';
import type { Case, DoctorLine, LinkHeard } from './doctorLine';
import { firewall, interfaces, mask, together } from './ends';
import { onTheWire, order, protocol } from './heard';
import { arrives } from './arrives';
import { linkedUniverses } from './linked';
import { base, enough } from './numbering';
import { type PatchSaid, sameLamps } from './patchSaid';

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
  arrives,
];

const fed = new WeakMap<ShowRecords, ReadonlySet<number>>();

/** Universes that feed lamps or pixels; found once for each show. */
function fedUniverses(records: ShowRecords): ReadonlySet<number> {
  let universes = fed.get(records);
  if (!universes) {
    universes = new Set([
      ...records.lamp.flatMap(universesOfLamp),
      ...layRuns(records.run, records.machine).flatMap(({ segments }) => segments.map((at) => at.universe)),
    ]);
    fed.set(records, universes);
  }
  return universes;
}

/** All lines; none if the link's ends are gone. `said` is what other programs tell of their patch. */
export function doctor(
  link: Link,
  records: ShowRecords,
  live: LinkHeard,
  said: readonly PatchSaid[] = [],
): DoctorLine[] {
  const sender = sendersOf(records.machine).find(({ id }) => id === link.senderId);
  const visualiser = records.machine.find(({ id }) => id === link.visualiserId);
  if (!sender || !visualiser) return [];
  const universes = linkedUniverses(link, sender, records.universe);
  const reports = new Map(live.universes.map((one) => [one.key, one]));
  const streams = universes.flatMap(({ universe, sent }) =>
    (sent && sent.protocol === link.protocol ? (reports.get(wireKey(sent))?.streams ?? []) : [])
      .filter((stream) => !stream.lost && !stream.own && isSentBy(stream, sender))
      .map((stream) => ({ universe, stream })),
  );
  const addresses = new Set(addressesOf(visualiser).map(({ text }) => text));
  const node =
    live.nodes.find((one) => !one.gone && addresses.has(one.address)) ??
    live.nodes.find((one) => !one.gone && one.shortName === visualiser.name);
  const planned = new Map(records.universe.map((one) => [one.number, one]));
  const used = [...fedUniverses(records)]
    .filter((universe) =>
      linesWith(sender, universe).some(
        (line) => sentTo(line, universe, planned.get(universe))?.protocol === link.protocol,
      ),
    )
    .sort((a, b) => a - b);
  const { listeningSince } = live;
  const one: Case = { link, records, sender, visualiser, universes, streams, node, used, listeningSince };
  const lamps = sameLamps(one, said);
  return [...CHECKS.map((check) => check(one)), ...(lamps ? [lamps] : [])];
}

/** Whether nothing is wrong or open, and somebody said or saw that it arrives. */
export const arrivesSurely = (lines: readonly DoctorLine[]): boolean =>
  lines.some(({ name, state }) => name === 'arrives' && state === 'fine') &&
  lines.every(({ state }) => state === 'fine' || state === 'planned');
