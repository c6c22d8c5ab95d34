/** A node’s network cable is out. */
import { byHand, nodesNear, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const nodeUnplugged: Cause = {
  id: 'node-unplugged',
  title: 'A node’s network cable is out',
  common: 0.7,
  *find(scene) {
    for (const { id, name } of nodesNear(scene))
      yield {
        about: subject('machine', id),
        says: `The network cable of ${name} is out, or its socket at the switch is dead.`,
        change: (world) => withNode(world, id, () => ({ plugged: false })),
        repair: byHand(`Plug the network cable of ${name} in; try another socket of the switch.`),
      };
  },
};
