/** A sender of the show sends a universe that it is not planned to send, beside its own. */
import { fromWireKey, wireKey } from '../../address';
import { withSender } from '../../simulate';
import { byHand, sendersNear, subject, type Cause } from '../cause';

export const sendsMore: Cause = {
  id: 'sends-more',
  common: 0.4,
  *find(scene) {
    const near = new Set(sendersNear(scene).map(({ id }) => id));
    for (const sender of scene.whole.senders) {
      if (sender.through) continue;
      const { id } = sender;
      const planned = new Set(sender.streams.map(({ wire }) => wireKey(wire)));
      const more = scene.seen.streams.filter((one) => one.sender === id && !planned.has(one.key));
      if (more.length === 0) continue;
      yield {
        about: subject('machine', id),
        says: `${scene.nameOf(id)} sends ${more.length === 1 ? 'a universe' : `${more.length} universes`} that it is not planned to send.`,
        change: (world) => {
          const streams = more.map(({ key, priority, slots }) => ({
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
          }));
          const there = near.has(id) && world.senders.some((one) => one.id === id);
          return there
            ? withSender(world, id, (one) => ({ streams: [...one.streams, ...streams] }))
            : { ...world, senders: [...world.senders, { ...sender, streams }] };
        },
        repair: byHand(`Switch these universes off in the outputs of ${scene.nameOf(id)}, or plan them.`),
      };
    }
  },
};
