/** A sender sends unicast to another box. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const unicastElsewhere: Cause = {
  id: 'unicast-elsewhere',
  title: 'A sender sends unicast to another box',
  common: 0.2,
  *find(scene) {
    for (const { id } of sendersNear(scene))
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends to one box only, and that is another.`,
        change: (world) => withStreams(world, id, () => ({ travels: { to: [] } })),
        repair: byHand(`Set ${scene.names.of(id)} to multicast, or to the addresses of its nodes.`),
      };
  },
};
