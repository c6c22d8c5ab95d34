/** A sender sends unicast to another box, or to this computer alone. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const unicastElsewhere: Cause = {
  id: 'unicast-elsewhere',
  title: 'A sender sends unicast to another box',
  common: 0.2,
  *find(scene) {
    for (const { id } of sendersNear(scene)) {
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends to one box only, and that is another.`,
        change: (world) => withStreams(world, id, () => ({ travels: { to: [] } })),
        repair: byHand(`Set ${scene.names.of(id)} to multicast, or to the addresses of its nodes.`),
      };
      const { addresses } = scene.world.here;
      if (addresses.length === 0) continue;
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends to this computer alone, and to none of its nodes.`,
        change: (world) => withStreams(world, id, () => ({ travels: { to: addresses } })),
        repair: byHand(`Set ${scene.names.of(id)} to multicast, or to the addresses of its nodes.`),
      };
    }
  },
};
