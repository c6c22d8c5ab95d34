/** A sender sends only now and then. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const slow: Cause = {
  id: 'slow',
  title: 'A sender sends only now and then',
  common: 0.3,
  *find(scene) {
    if (scene.seen.lateHere) return;
    for (const { id } of sendersNear(scene))
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends only a few frames a second.`,
        change: (world) => withStreams(world, id, () => ({ slow: true })),
        repair: byHand(`Raise the rate of ${scene.names.of(id)}, or let it send while nothing changes.`),
      };
  },
};
