/** Many control blocks addressed in one go: a media server's layers, outputs and master, say. */
import {
  formatAddress,
  formatPortAddress,
  readAddress,
  readChannel,
  readPortAddress,
  type SlotAddress,
} from '../../base/address';
import { ok, refuse, type Result } from '../../base/result';
import { blocksOf } from '../fixture';
import { type FixtureMode, type FixtureType, type Lamp, PLAIN_LAMP, type ShowRecords } from '../../show/records';
import { freeNumbers, lampName, nameFrom, placedAt, withNewLamps } from './lamps';
import { addressesOf, lastChannel, Patch } from './patch';
import { Occupancy, placeAll } from './occupancy';
import { formatAll, type Rig } from './rig';
import { countOf, type Plan, removed } from '../../show/edit';

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
export function readStart(text: string, { universe }: ShowRecords): Result<SlotAddress> {
  const [head = '', channelText, ...more] = text.split('/');
  if (!head.includes('.')) return readAddress(text);
  if (channelText === undefined || more.length > 0)
    return refuse(
      'not-understood',
      `“${text.trim()}” is not an address: write net.sub.universe/channel, as in 0.1.2/47.`,
    );
  const port = readPortAddress(head);
  if (!port.ok) return port;
  const channel = readChannel(channelText);
  if (!channel.ok) return channel;
  const found = universe.find(({ protocol, wire }) => protocol === 'artnet' && wire === port.value);
  if (!found)
    return refuse(
      'not-found',
      `No universe of the show travels as Art-Net ${formatPortAddress(port.value)}. Add it, or give the show universe.`,
    );
  return ok({ universe: found.number, channel: channel.value });
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

const lengthsOf = (blocks: readonly BulkBlock[]): (readonly number[])[] =>
  blocks.flatMap(({ mode, count }) => Array.from({ length: Math.max(0, count) }, () => blocksOf(mode)));

/** Universes looked through for a gap. */
const MOST_LOOKED = 256;

/**
 * The first address from `start` on from which all blocks would lie on nothing else; undefined if they do at
 * `start`, or if there is no such gap in the next universes.
 */
export function gapForBlocks(
  rig: Rig,
  { blocks, start, group }: Pick<BulkRequest, 'blocks' | 'start' | 'group'>,
): SlotAddress | undefined {
  const lengths = lengthsOf(blocks);
  if (lengths.length === 0) return undefined;
  const own = rig.records.lamp.filter(({ groups }) => group !== '' && groups.includes(group)).map(({ id }) => id);
  const occupancy = new Occupancy(rig.patch, new Set(own));
  const lies = (at: SlotAddress): boolean => {
    const places = placeAll(new Occupancy(new Patch([], [])), lengths, { how: 'from', start: at, gap: 0 });
    return (
      places.ok &&
      places.value.every((addresses, i) =>
        addresses.every((address, block) => {
          const found = occupancy.nextFit(lengths[i]![block]!, address);
          return found.ok && formatAddress(found.value) === formatAddress(address);
        }),
      )
    );
  };
  if (lies(start)) return undefined;
  for (let universe = start.universe; universe < start.universe + MOST_LOOKED; universe += 1)
    for (const { channel } of occupancy.freeRuns(universe)) {
      const at = { universe, channel };
      if ((universe > start.universe || channel > start.channel) && lies(at)) return at;
    }
  return undefined;
}

/** The plan of all blocks, one after the other; a block that would be cut begins in the next universe. */
export function addBlocks(
  rig: Rig,
  { blocks, start, numberFrom, group, placeId }: BulkRequest,
  newId: () => string,
): Result<Plan> {
  const single = blocks.flatMap((block) =>
    Array.from({ length: Math.max(0, block.count) }, (_, i) => ({ ...block, running: i + 1 })),
  );
  if (single.length === 0) return refuse('nothing', 'Choose at least one block.');
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
  return ok({
    sentence: `Addressed ${countOf(lamps.length, 'block')}${group === '' ? '' : ` of ${group}`} from ${formatAddress(start)} on`,
    changes: [...goes.map((lamp) => removed('lamp', lamp)), ...fresh.changes],
    lines: [
      ...goes.map((lamp) => ({ subject: lampName(lamp), before: formatAll(addressesOf(lamp)), after: '' })),
      ...fresh.lines,
    ],
  });
}
