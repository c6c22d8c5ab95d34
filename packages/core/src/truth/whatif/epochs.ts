/** The world in stretches of time in which nothing happens. */
import { sendersOf } from '../../network/flow';
import type { ShowRecords } from '../../show/records';
import { BOOT_S, applied, isPower, synced, type WhatIfEvent, type WhatIfWorld } from './event';

export interface Epoch {
  /** s; the first begins before nought, when all was well */
  readonly from: number;
  readonly world: WhatIfWorld;
}

/** When an event is over for nodes, and for senders; Infinity if it lasts. */
const endOf = (event: WhatIfEvent, boots: number): number =>
  event.lasts === 0 ? Infinity : event.at + event.lasts + (isPower(event) ? boots : 0);

/**
 * Stretches from the first, in their order. Senders and nodes start up at their own pace: while a node runs again, the
 * desk of the same place may still be starting.
 */
export function epochsOf(
  first: WhatIfWorld,
  events: readonly WhatIfEvent[],
  records: Pick<ShowRecords, 'machine'>,
): Epoch[] {
  const base = synced(first, events);
  const times = new Set([0]);
  for (const event of events) {
    times.add(event.at);
    // Lamps need no time to start.
    for (const boots of [0, ...Object.values(BOOT_S)]) {
      const end = endOf(event, boots);
      if (end !== Infinity) times.add(end);
    }
  }
  const senders = new Set(sendersOf(records.machine).map(({ id }) => id));
  const worldAt = (time: number): WhatIfWorld => {
    const holds = (event: WhatIfEvent, boots: number) => event.at <= time && time < endOf(event, boots);
    const forNodes = events
      .filter((one) => holds(one, BOOT_S.node))
      .reduce((now, one) => applied(now, one, records), base);
    const still = events.filter((one) => isPower(one) && holds(one, BOOT_S.sender) && !holds(one, BOOT_S.node));
    const starting = still.reduce((now, one) => applied(now, one, records), base);
    const dark = new Set(starting.senders.filter(({ on, id }) => !on && senders.has(id)).map(({ id }) => id));
    return {
      ...forNodes,
      senders: forNodes.senders.map((one) => (dark.has(one.id) ? { ...one, on: false } : one)),
      // Lamps shine as soon as they have power.
      darkPlaces: new Set(events.filter((one) => one.kind === 'place power' && holds(one, 0)).map(({ id }) => id)),
    };
  };
  return [
    { from: -Infinity, world: base },
    ...[...times].sort((a, b) => a - b).map((from) => ({ from, world: worldAt(from) })),
  ];
}
