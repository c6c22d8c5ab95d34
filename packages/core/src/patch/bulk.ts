/** Many control blocks addressed in one go: a media server's layers, outputs and master, say. */
import {
  formatAddress,
  formatPortAddress,
  readAddress,
  readPortAddress,
  readChannel,
  refuse,
  read,
  type Read,
  type SlotAddress,
} from '../address';
import { blocksOf, type FixtureMode } from '../fixture';
import { PLAIN_LAMP, type FixtureType, type Lamp, type ShowRecords } from '../show';
import { freeNumbers, lampName, nameFrom, placedAt, withNewLamps } from './lamps';
import { addressesOf, lastChannel, Patch } from './patch';
import { Occupancy, placeAll } from './occupancy';
import { countOf, formatAll, removed, type Plan, type Rig } from './plan';

export interface BulkBlock {
  readonly type: FixtureType;
  readonly mode: FixtureMode;
  readonly count: number;
  /** Name of each, with `#` for the running number */
  readonly pattern: string;
}

export interface BulkRequest {
  readonly blocks: readonly BulkBlock[];
  readonly start: SlotAddress;
  readonly numberFrom: number;
  /** The group that holds them all; what is in it already is replaced. */
  readonly group: string;
  readonly placeId: string | null;
}

/** Reads `3/47`, or an Art-Net universe and a channel as in `0.1.2/47`, which must be in the show. */
export function readStart(text: string, { universe }: ShowRecords): Read<SlotAddress> {
  const [head = '', channelText, ...more] = text.split('/');
  if (!head.includes('.')) return readAddress(text);
  if (channelText === undefined || more.length > 0)
    return refuse(`“${text.trim()}” is not an address: write net.sub.universe/channel, as in 0.1.2/47.`);
  const port = readPortAddress(head);
  if (!port.ok) return port;
  const channel = readChannel(channelText);
  if (!channel.ok) return channel;
  const found = universe.find(({ protocol, wire }) => protocol === 'artnet' && wire === port.value);
  if (!found)
    return refuse(
      `No universe of the show travels as Art-Net ${formatPortAddress(port.value)}. Add it, or give the show universe.`,
    );
  return read({ universe: found.number, channel: channel.value });
}

/** Lamps that would have to go: those of the same group, and those that lie where the new blocks would. */
function inTheWay(
  rig: Rig,
  group: string,
  places: readonly (readonly SlotAddress[])[],
  lengths: readonly (readonly number[])[],
): Lamp[] {
  const gone = new Set(rig.records.lamp.filter(({ groups }) => group !== '' && groups.includes(group)));
  places.forEach((addresses, i) =>
    addresses.forEach(({ universe, channel }, block) => {
      const last = channel + lengths[i]![block]! - 1;
      for (const span of rig.patch.universe(universe))
        if (!span.patched.run && span.channel <= last && lastChannel(span) >= channel) gone.add(span.patched.lamp);
    }),
  );
  return [...gone];
}

/** The plan of all blocks, one after the other; a block that would be cut begins in the next universe. */
export function addBlocks(
  rig: Rig,
  { blocks, start, numberFrom, group, placeId }: BulkRequest,
  newId: () => string,
): Read<Plan> {
  const single = blocks.flatMap((block) =>
    Array.from({ length: Math.max(0, block.count) }, (_, i) => ({ ...block, running: i + 1 })),
  );
  if (single.length === 0) return refuse('Choose at least one block.');
  const lengths = single.map(({ mode }) => blocksOf(mode));
  // Lamps may be replaced, so nothing but the start and the universes' ends decides where the blocks lie.
  const places = placeAll(new Occupancy(new Patch([], [])), lengths, { how: 'from', start, gap: 0 });
  if (!places.ok) return places;
  const goes = inTheWay(rig, group, places.value, lengths);
  const freed = new Set(goes.map(({ number }) => number));
  const numbers = freeNumbers(
    { ...rig, records: { ...rig.records, lamp: rig.records.lamp.filter((lamp) => !freed.has(lamp.number)) } },
    numberFrom,
  );
  const lamps = single.map(({ type, mode, pattern, running }, i): Lamp => ({
    ...PLAIN_LAMP,
    id: newId(),
    rev: 0,
    number: numbers.next().value,
    name: nameFrom(pattern, running),
    typeId: type.id,
    mode: mode.name,
    ...placedAt(places.value[i]!),
    placeId,
    groups: group === '' ? [] : [group],
  }));
  const fresh = withNewLamps(
    rig,
    lamps,
    blocks.filter(({ count }) => count > 0).map(({ type }) => type),
    newId,
  );
  return read({
    sentence: `Addressed ${countOf(lamps.length, 'block')}${group === '' ? '' : ` of ${group}`} from ${formatAddress(start)} on`,
    changes: [...goes.map((lamp) => removed('lamp', lamp)), ...fresh.changes],
    lines: [
      ...goes.map((lamp) => ({ subject: lampName(lamp), before: formatAll(addressesOf(lamp)), after: '' })),
      ...fresh.lines,
    ],
  });
}
