/** Multicast does not get through to a node, though everything else does. */
import { byHand, nodesNear, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const multicastBlocked: Cause = {
  id: 'multicast-blocked',
  title: 'Multicast does not get through to a node, though everything else does',
  common: 0.5,
  *find(scene) {
    for (const { id, name } of nodesNear(scene))
      yield {
        about: subject('machine', id),
        says: `Multicast does not get through to ${name}, though it answers: the switch holds it back.`,
        change: (world) => withNode(world, id, () => ({ multicast: false })),
        repair: byHand(`Let the switch pass multicast to ${name}, or send unicast to it.`),
      };
  },
};
