/** Other addresses for lamps. Each act is planned first: its lines are what would be written. */
import {
  formatAddress,
  fromAbsolute,
  isAddressed,
  NO_ADDRESS,
  type SlotAddress,
  SLOTS,
  toAbsolute,
} from '../../base/address';
import { ok, refuse, type Result } from '../../base/result';
import { blocksOf } from '../fixture';
import type { Lamp } from '../../show/records';
import { lampName, lampsOf, NONE_CHOSEN, placedAt } from './lamps';
import { Occupancy, placeAll, placesOf, type PlaceRequest } from './occupancy';
import { addressesOf } from './patch';
import { formatAll, missingUniverses, type Rig } from './rig';
import { changed, countOf, type Plan } from '../../show/edit';

/** Plans new addresses for lamps, and the universes that they need. */
function moved(
  rig: Rig,
  lamps: readonly Lamp[],
  places: readonly (readonly SlotAddress[])[],
  sentence: string,
  newId: () => string,
  alter: (lamp: Lamp) => Lamp = (lamp) => lamp,
): Plan {
  const universes = missingUniverses(
    rig.records,
    places.flat().map(({ universe }) => universe),
    newId,
  );
  const pairs = lamps.map((lamp, i) => [lamp, alter({ ...lamp, ...placedAt(places[i]!) })] as const);
  return {
    sentence,
    changes: [...universes.changes, ...pairs.map(([before, after]) => changed('lamp', before, after))],
    lines: [
      ...universes.lines,
      ...pairs.map(([before, after]) => ({
        subject: lampName(before),
        before: formatAll(addressesOf(before)),
        after: formatAll(addressesOf(after)),
      })),
    ],
  };
}

/** New addresses for lamps, in the order given; what other lamps use is passed over. */
export function readdress(rig: Rig, ids: readonly string[], place: PlaceRequest, newId: () => string): Result<Plan> {
  const lamps = lampsOf(rig, ids);
  if (lamps.length === 0) return NONE_CHOSEN;
  const places = placeAll(
    new Occupancy(rig.patch, new Set(ids)),
    lamps.map(({ mode }) => blocksOf(mode)),
    place,
  );
  if (!places.ok) return places;
  const to = formatAddress(places.value[0]![0]!);
  return ok(
    moved(
      rig,
      lamps.map(({ lamp }) => lamp),
      places.value,
      `Addressed ${countOf(lamps.length, 'lamp')} from ${to} on`,
      newId,
    ),
  );
}

/** Puts one lamp's first block exactly where it is said, even over another: that becomes a finding. */
export function moveTo(rig: Rig, id: string, at: SlotAddress, newId: () => string): Result<Plan> {
  const [patched] = lampsOf(rig, [id]);
  if (!patched) return NONE_CHOSEN;
  const length = blocksOf(patched.mode)[0]!;
  if (at.channel + length - 1 > SLOTS)
    return refuse(
      'out-of-range',
      `Lamp ${patched.lamp.number} takes ${length} channels: in universe ${at.universe} it can begin at ${SLOTS - length + 1} at the latest.`,
    );
  return ok(
    moved(
      rig,
      [patched.lamp],
      [[at, ...patched.lamp.blocks]],
      `Moved lamp ${patched.lamp.number} to ${formatAddress(at)}`,
      newId,
    ),
  );
}

/** The first place from `from` on where a lamp's first block would lie on nothing else; undefined if that is there. */
export function gapFor(rig: Rig, id: string, from: SlotAddress): SlotAddress | undefined {
  const [patched] = lampsOf(rig, [id]);
  if (!patched) return undefined;
  const found = new Occupancy(rig.patch, new Set([id])).nextFit(blocksOf(patched.mode)[0]!, from);
  return found.ok && formatAddress(found.value) !== formatAddress(from) ? found.value : undefined;
}

/** Takes lamps’ addresses away; they stay in the show. */
export function unaddress(rig: Rig, ids: readonly string[], newId: () => string): Result<Plan> {
  const lamps = lampsOf(rig, ids)
    .map(({ lamp }) => lamp)
    .filter((lamp) => addressesOf(lamp).some(isAddressed));
  if (lamps.length === 0) return refuse('nothing', 'No lamp is chosen that has an address.');
  const places = lamps.map((lamp) => addressesOf(lamp).map(() => NO_ADDRESS));
  return ok(moved(rig, lamps, places, `Took the address from ${countOf(lamps.length, 'lamp')}`, newId));
}

/** Moves lamps by a number of channels, forward or back, through universes' ends. */
export function shift(rig: Rig, ids: readonly string[], by: number, newId: () => string): Result<Plan> {
  const lamps = lampsOf(rig, ids);
  if (lamps.length === 0) return NONE_CHOSEN;
  const places: SlotAddress[][] = [];
  for (const { lamp, mode } of lamps) {
    const lengths = blocksOf(mode);
    const addresses: SlotAddress[] = [];
    for (const [i, address] of addressesOf(lamp).entries()) {
      if (!isAddressed(address)) {
        addresses.push(address);
        continue;
      }
      const to = fromAbsolute(toAbsolute(address) + by);
      if (!to.ok)
        return refuse('out-of-range', `Lamp ${lamp.number} would be moved to before 1/1 or beyond the last universe.`);
      if (to.value.channel + (lengths[i] ?? 1) - 1 > SLOTS)
        return refuse('out-of-range', `Lamp ${lamp.number} would be cut by the end of universe ${to.value.universe}.`);
      addresses.push(to.value);
    }
    places.push(addresses);
  }
  const way = by < 0 ? 'back' : 'on';
  return ok(
    moved(
      rig,
      lamps.map(({ lamp }) => lamp),
      places,
      `Moved ${countOf(lamps.length, 'lamp')} ${countOf(Math.abs(by), 'channel')} ${way}`,
      newId,
    ),
  );
}

/**
 * Another mode for lamps of one type. With `follow` they are addressed anew one after the other from the
 * first one's address, in the order of their addresses; without it each stays where it begins.
 */
export function changeMode(
  rig: Rig,
  ids: readonly string[],
  modeName: string,
  follow: boolean,
  newId: () => string,
): Result<Plan> {
  const lamps = lampsOf(rig, ids).sort((a, b) => a.lamp.universe - b.lamp.universe || a.lamp.channel - b.lamp.channel);
  const [first] = lamps;
  if (!first) return NONE_CHOSEN;
  const odd = lamps.find(({ type }) => !type.modes.some(({ name }) => name === modeName));
  if (odd)
    return refuse(
      'not-found',
      `${odd.type.maker} ${odd.type.name}, which lamp ${odd.lamp.number} is, has no mode “${modeName}”.`,
    );
  const lengths = lamps.map(({ type }) => blocksOf(type.modes.find(({ name }) => name === modeName)!));
  const occupancy = new Occupancy(rig.patch, new Set(ids));
  const places: SlotAddress[][] = [];
  if (follow) {
    if (!isAddressed(first.lamp))
      return refuse('not-possible', `Lamp ${first.lamp.number} has no address to follow on.`);
    const start = { universe: first.lamp.universe, channel: first.lamp.channel };
    const found = placeAll(occupancy, lengths, { how: 'from', start, gap: 0 });
    if (!found.ok) return found;
    places.push(...found.value);
  } else {
    for (const [i, { lamp }] of lamps.entries()) {
      const found = placesOf(occupancy, lamp, lengths[i]!);
      if (!found.ok) return found;
      places.push(found.value);
    }
  }
  const plan = moved(
    rig,
    lamps.map(({ lamp }) => lamp),
    places,
    `Changed ${countOf(lamps.length, 'lamp')} to ${modeName}`,
    newId,
    (lamp) => ({ ...lamp, mode: modeName }),
  );
  const lines = plan.lines.map((line) => {
    const patched = lamps.find(({ lamp }) => lampName(lamp) === line.subject);
    return patched
      ? { ...line, before: `${patched.mode.name}, ${line.before}`, after: `${modeName}, ${line.after}` }
      : line;
  });
  return ok({ ...plan, lines });
}

/** Declares lamps twins: all at the first one's address, on purpose. They must be alike in their slots. */
export function makeTwins(rig: Rig, ids: readonly string[], newId: () => string): Result<Plan> {
  const lamps = lampsOf(rig, ids);
  const [first] = lamps;
  if (!first || lamps.length < 2) return refuse('not-possible', 'Twins are two lamps or more.');
  if (!isAddressed(first.lamp)) return refuse('not-possible', `Lamp ${first.lamp.number} has no address to share.`);
  const shape = blocksOf(first.mode).join();
  const odd = lamps.find(({ mode }) => blocksOf(mode).join() !== shape);
  if (odd)
    return refuse(
      'not-possible',
      `Lamps ${first.lamp.number} and ${odd.lamp.number} take different numbers of channels, so they cannot be twins.`,
    );
  const twin = first.lamp.twin ?? newId();
  return ok(
    moved(
      rig,
      lamps.map(({ lamp }) => lamp),
      lamps.map(() => addressesOf(first.lamp)),
      `Made lamps ${lamps.map(({ lamp }) => lamp.number).join(', ')} twins`,
      newId,
      (lamp) => ({ ...lamp, twin }),
    ),
  );
}

/** Moves the lamps of a universe together so that nothing is free between them; twins stay together. */
export function closeGaps(rig: Rig, universe: number, newId: () => string): Result<Plan> {
  const spans = rig.patch.universe(universe).filter(({ patched }) => !patched.run);
  const runs = rig.patch.universe(universe).filter(({ patched }) => patched.run);
  const fixed = new Set(runs.flatMap(({ channel, length }) => Array.from({ length }, (_, i) => channel + i)));
  const to = new Map<Lamp, SlotAddress[]>();
  const ofTwins = new Map<string, number>();
  let next = 1;
  for (const { patched, block, length } of spans) {
    const { lamp } = patched;
    const twinKey = lamp.twin === null ? '' : `${lamp.twin} ${block}`;
    const shared = twinKey === '' ? undefined : ofTwins.get(twinKey);
    let channel = shared ?? next;
    if (shared === undefined) {
      for (let i = 0; i < length; i += 1)
        if (fixed.has(channel + i)) {
          channel += i + 1;
          i = -1;
        }
      next = channel + length;
      if (twinKey !== '') ofTwins.set(twinKey, channel);
    }
    if (channel + length - 1 > SLOTS)
      return refuse('out-of-range', `Universe ${universe} has no room: its lamps overlap. Mend that first.`);
    const addresses = to.get(lamp) ?? addressesOf(lamp);
    addresses[block - 1] = { universe, channel };
    to.set(lamp, addresses);
  }
  const movedLamps = [...to].filter(([lamp, addresses]) => formatAll(addressesOf(lamp)) !== formatAll(addresses));
  if (movedLamps.length === 0) return refuse('not-possible', `Universe ${universe} has no gaps between its lamps.`);
  return ok(
    moved(
      rig,
      movedLamps.map(([lamp]) => lamp),
      movedLamps.map(([, addresses]) => addresses),
      `Closed the gaps in universe ${universe}`,
      newId,
    ),
  );
}
