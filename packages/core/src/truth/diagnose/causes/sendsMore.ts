/** A sender of the show sends a universe that it is not planned to send, beside its own. */
import { addSender, withSender } from '../../simulate';
import { byHand, isMeant, strayStreams, subject, type Cause } from '../cause';

export const sendsMore: Cause = {
  id: 'sends-more',
  title: 'A sender of the show sends a universe that it is not planned to send, beside its own',
  common: 0.4,
  *find({ whole, seen, near, names }) {
    for (const { id, name, address, through } of whole.senders) {
      const more = seen.streams.filter((one) => one.sender === id && !isMeant(whole, one));
      if (through || more.length === 0) continue;
      const streams = strayStreams(more);
      yield {
        about: subject('machine', id),
        says: `${names.of(id)} sends ${more.length === 1 ? 'a universe' : `${more.length} universes`} that it is not planned to send.`,
        change: (world) =>
          near.senders.has(id)
            ? withSender(world, id, (one) => ({ streams: [...one.streams, ...streams] }))
            : addSender(world, { id, name, address, streams }),
        repair: byHand(`Switch these universes off in the outputs of ${names.of(id)}, or plan them.`),
      };
    }
  },
};
