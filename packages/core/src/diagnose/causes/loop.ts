/** A node’s input sends a universe that nobody planned it to: what leaves comes in again. */
import { byHand, subject, type Cause } from '../cause';
import { fromWireKey, wireKey } from '../../address';

export const loop: Cause = {
  id: 'loop',
  common: 0.4,
  *find(scene) {
    for (const { id, address, name } of scene.whole.nodes) {
      const planned = scene.whole.senders.filter(({ through }) => through?.nodeId === id);
      const fed = scene.seen.streams.filter(
        (one) =>
          one.address === address &&
          !planned.some(({ streams }) => streams.some(({ wire }) => wireKey(wire) === one.key)),
      );
      if (fed.length === 0) continue;
      yield {
        about: subject('machine', id),
        says: `${name} sends ${fed.length === 1 ? 'this universe' : `${fed.length} universes`} by an input: what leaves comes in again.`,
        change: (world) => ({
          ...world,
          senders: [
            ...world.senders,
            {
              id: fed[0]!.sender,
              name,
              address,
              cid: `input ${address}`,
              on: true,
              through: null,
              streams: fed.map(({ key, priority, slots }) => ({
                universe: null,
                wire: fromWireKey(key),
                priority,
                rate: 40,
                startCode: 0,
                slots,
                syncAddress: 0,
                travels: 'multicast' as const,
                ragged: false,
                on: true,
              })),
            },
          ],
        }),
        repair: byHand(`Switch the input of ${name} off, or pull its cable.`),
      };
    }
  },
};
