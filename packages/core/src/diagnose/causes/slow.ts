/** A sender sends only now and then. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const slow: Cause = {
  id: 'slow',
  common: 0.3,
  *find(scene) {
    for (const { id } of sendersNear(scene))
      yield {
        about: subject('machine', id),
        says: `${scene.nameOf(id)} sends only a few frames a second.`,
        change: (world) => withStreams(world, id, () => ({ rate: 1 })),
        repair: byHand(`Raise the rate of ${scene.nameOf(id)}, or let it send while nothing changes.`),
      };
  },
};
