/** Addresses set by small switches: nine of them, each worth twice the one before. */
import { type NumberingBase, SLOTS } from './universe';
import { ok, refuse, type Result } from '../result';

export const DIP_SWITCHES = 9;

export interface DipScheme {
  /** Which end of the row is switch 1, worth 1 */
  readonly order: 'left' | 'right';
  /** Where the lever stands when a switch is on */
  readonly on: 'up' | 'down';
  /** 1: the switches show the address itself. 0: channel 1 is all off. */
  readonly base: NumberingBase;
  /** Switches after the nine that always stand the same: their label, and whether they are on. */
  readonly extras: readonly { readonly label: string; readonly on: boolean }[];
}

export const DIP_USUAL: DipScheme = { order: 'left', on: 'up', base: 1, extras: [] };

export interface DipSwitch {
  readonly label: string;
  readonly on: boolean;
  /** Lever stands up */
  readonly up: boolean;
}

/** The row of switches for a start channel (1–512), from left to right. Channel 512 does not fit nine switches in base 1. */
export function dipSwitches(channel: number, scheme: DipScheme): Result<DipSwitch[]> {
  const value = channel - 1 + scheme.base;
  if (!Number.isInteger(channel) || channel < 1 || channel > SLOTS)
    return refuse('out-of-range', `${channel} is not a channel.`);
  if (value >= 2 ** DIP_SWITCHES)
    return refuse(
      'not-possible',
      `Channel ${channel} cannot be set with nine switches that count from ${scheme.base}.`,
    );
  const switchOf = (label: string, on: boolean): DipSwitch => ({ label, on, up: on === (scheme.on === 'up') });
  const row = Array.from({ length: DIP_SWITCHES }, (_, i) => switchOf(String(i + 1), ((value >> i) & 1) === 1));
  if (scheme.order === 'right') row.reverse();
  return ok([...row, ...scheme.extras.map(({ label, on }) => switchOf(label, on))]);
}
