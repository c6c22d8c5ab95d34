/** Routes: how they run, switching them, and the faders of other desks. */
import type { LearnReply, RouteReport } from '@taxiarch/core/contract';
import { formatWire, readWireText, wireKey, type Read, type WireUniverse } from '@taxiarch/core/address';
import { universesByWire } from '@taxiarch/core/flow';
import type { Universe } from '@taxiarch/core/show';
import { post } from './api';
import { personName } from './kept';

export const runRoutes = (ids: readonly string[], on: boolean) =>
  post<RouteReport[]>('/api/routes/run', { ids, on, by: personName.read() });

export const giveBackRoute = (id: string) => post<RouteReport[]>('/api/routes/give-back', { id });

/** Waits for a fader of another desk to be moved. */
export const learnFader = () => post<LearnReply>('/api/routes/learn', {});

/** What a person typed for a universe; numbers alone are the show's own. */
export const wireFrom = (text: string, universes: readonly Universe[]): Read<WireUniverse> =>
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
