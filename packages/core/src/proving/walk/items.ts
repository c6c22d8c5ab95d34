/** What a walk goes through: lamps, or the channels of each, one after another. */
import { formatAddress, isAddressed } from '../../base/address';
import type { Patch, PatchedLamp } from '../../rig/patch';
import type { Walk } from '../../show/records';

export interface WalkItem {
  readonly key: string;
  readonly lampId: string;
  /** Counted in the lamp’s mode, from 1; 0 for the lamp as a whole */
  readonly channel: number;
}

/** `lamp-1`, `lamp-1#3` */
export const itemKey = (lampId: string, channel: number): string => (channel === 0 ? lampId : `${lampId}#${channel}`);

export const itemOf = (key: string): WalkItem => {
  const [lampId, channel = '0'] = key.split('#') as [string, string?];
  return { key, lampId, channel: Number(channel) };
};

/** In their order; lamps that are not in the show any more are left out. */
export function walkItems({ lampIds, unit }: Pick<Walk, 'lampIds' | 'unit'>, patch: Patch): WalkItem[] {
  return lampIds.flatMap((lampId) => {
    const patched = patch.lamp(lampId);
    if (!patched) return [];
    const channels = unit === 'lamp' ? [0] : patched.mode.channels.map((_, i) => i + 1);
    return channels.map((channel) => ({ key: itemKey(lampId, channel), lampId, channel }));
  });
}

/** Two that share an address light together, and are not in hand at once. */
export const lightOf = ({ lamp }: PatchedLamp): string => (isAddressed(lamp) ? formatAddress(lamp) : lamp.id);
