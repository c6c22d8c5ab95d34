/** Two patches of one lamp side by side: how they differ, and the levels that would show it on the stage. */
import { formatAddress, type SlotAddress, SLOTS } from '../../base/address';
import { blockOf, footprintOf, resolutionOf, splitValue } from '../../rig/fixture';
import type { FixtureChannel, FixtureMode } from '../../show/records';

export const PATCH_DIFFERENCES = ['address', 'mode', 'footprint', 'bits', 'order'] as const;
export type PatchDifference = (typeof PATCH_DIFFERENCES)[number];

export const DIFFERENCE_WORDS: Readonly<Record<PatchDifference, string>> = {
  address: 'other address',
  mode: 'other mode',
  footprint: 'other footprint',
  bits: '8 against 16 bit',
  order: 'channels in another order',
};

/** One side: the mode (undefined if it is not known), and where its blocks begin. */
export interface PatchSide {
  readonly mode: FixtureMode | undefined;
  readonly addresses: readonly SlotAddress[];
}

const nameOf = ({ attribute, cell }: FixtureChannel): string => `${attribute} ${cell ?? 0}`;

/** Channels in the order of their first slots, by name. */
const inOrder = ({ channels }: FixtureMode): string[] =>
  [...channels].sort((a, b) => blockOf(a) - blockOf(b) || Math.min(...a.offsets) - Math.min(...b.offsets)).map(nameOf);

/** How two modes differ in what they send where; names alone do not count. */
export function modeDifferences(one: FixtureMode, other: FixtureMode): PatchDifference[] {
  const found: PatchDifference[] = [];
  if (footprintOf(one) !== footprintOf(other)) found.push('footprint');
  const bits = new Map(one.channels.map((channel) => [nameOf(channel), resolutionOf(channel)]));
  if (
    other.channels.some((channel) => {
      const here = bits.get(nameOf(channel));
      return here !== undefined && here !== resolutionOf(channel);
    })
  )
    found.push('bits');
  const [a, b] = [inOrder(one), inOrder(other)];
  const both = new Set(a.filter((name) => b.includes(name)));
  const shared = (names: string[]) => names.filter((name) => both.has(name)).join();
  if (shared(a) !== shared(b)) found.push('order');
  return found;
}

export function patchDifferences(here: PatchSide, there: PatchSide): PatchDifference[] {
  const text = ({ addresses }: PatchSide) => addresses.map(formatAddress).join();
  const found: PatchDifference[] = there.addresses.length > 0 && text(here) !== text(there) ? ['address'] : [];
  if (here.mode && there.mode) {
    if (here.mode.name !== there.mode.name) found.push('mode');
    found.push(...modeDifferences(here.mode, there.mode));
  }
  return found;
}

/** Levels by address that light a lamp as one side has it patched: every channel at its highlight. */
export function lightOf({ mode, addresses }: PatchSide): Record<string, number> {
  const levels: Record<string, number> = {};
  for (const channel of mode?.channels ?? []) {
    const begin = addresses[blockOf(channel) - 1];
    if (!begin) continue;
    splitValue(channel, channel.highlight).forEach((level, i) => {
      const at = begin.channel + channel.offsets[i]! - 1;
      if (at <= SLOTS) levels[formatAddress({ universe: begin.universe, channel: at })] = level;
    });
  }
  return levels;
}
