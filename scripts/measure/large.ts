/** A made-up rig of any size. */
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { ShowRecords } from '@taxiarch/core/show/records';

/** A rig of `count` lamps, 20 a universe. */
export function largeRig(count: number): ShowRecords {
  const ferry = nightFerry();
  const universe = ferry.universe[0]!;
  const spot = ferry.type.find(({ id }) => id === 'type-spot-16')!;
  const lamps = Array.from({ length: count }, (_, i) => ({
    ...ferry.lamp[0]!,
    id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
    number: 1000 + i,
    name: `Spot ${i + 1}`,
    typeId: spot.id,
    mode: 'Extended',
    universe: 1 + Math.floor(i / 20),
    channel: 1 + (i % 20) * 25,
    x: i % 50,
    y: Math.floor(i / 50),
  }));
  const universes = Array.from({ length: Math.ceil(count / 20) }, (_, i) => ({
    ...universe,
    id: `u${i}`,
    number: i + 1,
    wire: i + 1,
  }));
  return { ...ferry, lamp: lamps, universe: universes, run: [] };
}
