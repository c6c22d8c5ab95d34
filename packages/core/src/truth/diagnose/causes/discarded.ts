/** Receivers discard what a sender sends: its sequence numbers stand still or go backwards. */
import { formatWire, fromWireKey, wireKey } from '../../../base/address';
import { withStreams } from '../../simulate';
import { byHand, sendersNear, subject, type Cause } from '../cause';

export const discarded: Cause = {
  id: 'discarded',
  title: 'Receivers discard what a sender sends: wrong sequence numbers',
  common: 0.2,
  *find(scene) {
    for (const { id } of sendersNear(scene)) {
      const refused = scene.seen.streams.filter(({ sender, effect }) => sender === id && effect === 'discarded');
      if (refused.length === 0) continue;
      const keys = new Set(refused.map(({ key }) => key));
      const where = refused.length === 1 ? formatWire(fromWireKey(refused[0]!.key)) : `${refused.length} universes`;
      yield {
        about: subject('machine', id),
        says: `Receivers discard the packets of ${scene.names.of(id)} on ${where}: wrong sequence numbers.`,
        change: (world) =>
          withStreams(world, id, ({ wire, effect }) => ({ effect: keys.has(wireKey(wire)) ? 'discarded' : effect })),
        repair: byHand(`Restart the network output of ${scene.names.of(id)}, or whatever passes its packets on.`),
      };
    }
  },
};
