/** Broadcast does not get through to a node. */
import { byHand, nodesNear, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const broadcastBlocked: Cause = {
  id: 'broadcast-blocked',
  title: 'Broadcast does not get through to a node',
  common: 0.15,
  *find(scene) {
    for (const { id, name } of nodesNear(scene))
      yield {
        about: subject('machine', id),
        says: `Broadcast does not get through to ${name}, though it answers.`,
        change: (world) => withNode(world, id, () => ({ broadcast: false })),
        repair: byHand(`Let the switch pass broadcast to ${name}, or send unicast to it.`),
      };
  },
};
