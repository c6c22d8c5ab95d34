/**
 * How a lamp shows its state on the floor: those that wait are dark, the one that is asked for is full and white, those
 * that are done glow. With colours the three differ in colour too; a run of cells shows its first.
 */
import { channelMaximum, splitValue } from '../../rig/fixture';
import type { FixtureMode } from '../../show/records';

export const LOOKS = ['waiting', 'now', 'done'] as const;
export type Look = (typeof LOOKS)[number];

/** Red, green, blue, all else that glows, and the intensity over them, 0–1 */
type Picture = readonly [red: number, green: number, blue: number, other: number, intensity: number];
const COLOURED: Readonly<Record<Look, Picture>> = {
  waiting: [0, 0, 1, 0, 0.12],
  now: [1, 1, 1, 1, 1],
  done: [0, 1, 0, 0, 0.3],
};
const PLAIN: Readonly<Record<Look, number>> = { waiting: 0, now: 1, done: 0.25 };

const EMITTERS: Readonly<Record<string, 0 | 1 | 2>> = { ColorAdd_R: 0, ColorAdd_G: 1, ColorAdd_B: 2 };
const isEmitter = (attribute: string): boolean => attribute.startsWith('ColorAdd_');
const isIntensity = (attribute: string): boolean => attribute === 'Dimmer' || attribute === 'Relay1';

/** Levels of a lamp’s slots, from 0 in its mode, for a look; slots that only move it are left out. */
export function levelsOfLook({ channels }: FixtureMode, look: Look): [offset: number, level: number][] {
  const coloured = channels.some(({ attribute }) => isEmitter(attribute));
  const dimmed = channels.some(({ attribute, cell }) => isIntensity(attribute) && cell === undefined);
  const picture = COLOURED[look];
  const shareOf = (attribute: string, cell: number | undefined): number | undefined => {
    // Only the first cell says the state: a run of pixels is found by its begin.
    const mine = cell === undefined || cell === 1;
    if (isIntensity(attribute)) return mine ? (coloured ? picture[4] : PLAIN[look]) : 0;
    if (!isEmitter(attribute)) return undefined;
    if (!mine) return 0;
    const emitter = EMITTERS[attribute];
    const part = emitter === undefined ? picture[3] : picture[emitter];
    return dimmed ? part : part * picture[4];
  };
  return channels.flatMap((channel) => {
    const { attribute, cell, offsets, block } = channel;
    if (block !== undefined) return [];
    const share = shareOf(attribute, cell);
    const opened = attribute.startsWith('Shutter') ? channel.default : undefined;
    const value = share === undefined ? opened : share * channelMaximum(channel);
    if (value === undefined) return [];
    return splitValue(channel, value).map((level, byte): [number, number] => [offsets[byte]! - 1, level]);
  });
}
