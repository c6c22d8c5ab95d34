/** Routes: how they run, switching them, and the faders of other desks. */
import { formatWire, readWireText, wireKey, type WireUniverse } from '@taxiarch/core/base/address';
import type { Result } from '@taxiarch/core/base/result';
import { universesByWire } from '@taxiarch/core/network/flow';
import type { Universe } from '@taxiarch/core/show/records';
import { call } from './api';
import { namedPerson, whoIsHere } from './person';

export const runRoutes = async (ids: readonly string[], on: boolean) =>
  call('runRoutes', { body: { ids, on, by: on ? await whoIsHere() : namedPerson() } });

export const giveBackRoute = (id: string) => call('giveBackRoute', { body: { id } });

/** Waits for a fader of another desk to be moved. */
export const learnFader = () => call('learnFader');

/** What a person typed for a universe; numbers alone are the show's own. */
export const wireFrom = (text: string, universes: readonly Universe[]): Result<WireUniverse> =>
  readWireText(text, (number) => {
    const planned = universes.find((one) => one.number === number);
    return planned && { protocol: planned.protocol, number: planned.wire };
  });

/** The show universe that is planned to travel as a universe of the wire. */
export const plannedAt = (wire: WireUniverse, universes: readonly Universe[]): Universe | undefined =>
  universesByWire(universes).get(wireKey(wire));

/** A universe by its name in the show, or as it is on the wire. */
export function wireName(wire: WireUniverse, universes: readonly Universe[]): string {
  const planned = plannedAt(wire, universes);
  return planned ? `${planned.number} ${planned.name}`.trim() : formatWire(wire);
}
