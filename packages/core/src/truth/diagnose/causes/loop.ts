/** A node’s input sends a universe that nobody planned it to: what leaves comes in again. */
import { addSender } from '../../simulate';
import { byHand, isMeant, strayStreams, subject, type Cause } from '../cause';

export const loop: Cause = {
  id: 'loop',
  title: 'A node’s input sends a universe that nobody planned it to: what leaves comes in again',
  common: 0.4,
  *find({ whole, seen }) {
    for (const { id, address, name } of whole.nodes) {
      const fed = seen.streams.filter((one) => one.address === address && !isMeant(whole, one));
      if (address === '' || fed.length === 0) continue;
      yield {
        about: subject('machine', id),
        says: `${name} sends ${fed.length === 1 ? 'this universe' : `${fed.length} universes`} by an input: what leaves comes in again.`,
        change: (world) => addSender(world, { id: fed[0]!.sender, name, address, streams: strayStreams(fed) }),
        repair: byHand(`Switch the input of ${name} off, or pull its cable.`),
      };
    }
  },
};
