/** Two senders use one component id: receivers take them for one. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withSender } from '../../simulate';

export const sameCid: Cause = {
  id: 'same-cid',
  title: 'Two senders use one component id: receivers take them for one',
  common: 0.15,
  *find(scene) {
    const all = sendersNear(scene);
    for (const one of all)
      for (const other of all) {
        if (one.id >= other.id) continue;
        yield {
          about: subject('machine', other.id),
          says: `${scene.names.of(one.id)} and ${scene.names.of(other.id)} use one component id: receivers take them for one.`,
          change: (world) => withSender(world, other.id, () => ({ cid: one.cid })),
          repair: byHand(
            `Give ${scene.names.of(other.id)} a component id of its own: copied show files often bring one along.`,
          ),
        };
      }
  },
};
