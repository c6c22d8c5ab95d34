/** The rig as CITP tells it, and what CITP tells of a rig as a table: both are joined by the lamps' numbers. */
import { isAddressed } from '../../base/address';
import { Citp, type CitpFixture } from '../../protocol/citp';
import { footprintOf } from '../../rig/fixture';
import type { ShowRecords } from '../../show/records';
import { writeTable } from './table';

/** Lamps by number; those that CITP has no words for are left out: see {@link untoldByCitp}. */
export function citpFixtures({ lamp, type }: Pick<ShowRecords, 'lamp' | 'type'>): CitpFixture[] {
  const types = new Map(type.map((one) => [one.id, one]));
  return lamp.filter(isTold).map((one) => {
    const its = types.get(one.typeId);
    const mode = its?.modes.find(({ name }) => name === one.mode);
    return {
      number: one.number,
      universe: one.universe - 1,
      channel: one.channel - 1,
      channels: mode ? footprintOf(mode) : 0,
      make: its?.maker ?? '',
      name: its?.name ?? '',
    };
  });
}

const isTold = (lamp: ShowRecords['lamp'][number]): boolean =>
  isAddressed(lamp) && lamp.universe <= Citp.MOST_UNIVERSES && lamp.number >= 1 && lamp.number <= Citp.LAST_NUMBER;

/** Lamps that CITP cannot tell: without an address, beyond universe 256, or numbered above 65535. */
export const untoldByCitp = ({ lamp }: Pick<ShowRecords, 'lamp'>): number => lamp.filter((one) => !isTold(one)).length;

/**
 * Numbers of lamps that lie elsewhere in a patch that came, take another count of channels, or are on one side only;
 * rising. `others` are numbers that are no lamps here, as runs of pixels are, and are passed over.
 */
export function citpDiffers(
  ours: readonly CitpFixture[],
  theirs: ReadonlyMap<number, CitpFixture>,
  others: ReadonlySet<number>,
): number[] {
  const own = new Map(ours.map((one) => [one.number, one]));
  const numbers = new Set([...own.keys(), ...theirs.keys()].filter((number) => !others.has(number)));
  const isSame = (number: number): boolean => {
    const [a, b] = [own.get(number), theirs.get(number)];
    if (!a || !b) return false;
    const sized = a.channels === 0 || b.channels === 0 || a.channels === b.channels;
    return sized && a.universe === b.universe && a.channel === b.channel;
  };
  return [...numbers].filter((number) => !isSame(number)).sort((a, b) => a - b);
}

/** A patch that came, as a table; it says nothing of names, places and modes but by the number of channels. */
export const citpTable = (fixtures: Iterable<CitpFixture>): string =>
  writeTable({
    heads: ['Number', 'Maker', 'Type', 'Channels', 'Universe', 'Channel'],
    rows: [...fixtures]
      .sort((a, b) => a.number - b.number)
      .map((one) => [
        one.number,
        one.make,
        one.name,
        one.channels > 0 ? one.channels : '',
        one.universe + 1,
        one.channel + 1,
      ]),
  });
