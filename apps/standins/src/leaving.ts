/** What leaves a port at a moment, and who controls each of its slots. */
import { SLOTS } from '@taxiarch/core/base/address';
import type { OutputPort } from '@taxiarch/core/network/port';

export interface Leaving {
  /** Empty where nothing leaves */
  readonly output: readonly number[];
  /** Addresses; the first is empty and stands for nobody. */
  readonly from: readonly string[];
  /** For each slot its place in `from` */
  readonly owners: readonly number[];
}

/** `now` in milliseconds on the port's clock; undefined for a port without power. */
export function leavingOf(port: OutputPort | undefined, now: number): Leaving {
  const from = [''];
  const owners = Array.from({ length: SLOTS }, (_, slot) => {
    const address = port?.ownerAt(slot)?.address ?? '';
    const known = from.indexOf(address);
    return known < 0 ? from.push(address) - 1 : known;
  });
  return { output: [...(port?.output(now) ?? [])], from, owners };
}
