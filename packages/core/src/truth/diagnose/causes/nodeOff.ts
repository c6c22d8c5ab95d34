/** A node has no power. */
import { byHand, nodesNear, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const nodeOff: Cause = {
  id: 'node-off',
  title: 'A node has no power',
  common: 0.6,
  *find(scene) {
    for (const { id, name } of nodesNear(scene))
      yield {
        about: subject('machine', id),
        says: `${name} has no power.`,
        change: (world) => withNode(world, id, () => ({ powered: false })),
        repair: byHand(`Look whether the lights of ${name} are on; give it power.`),
      };
  },
};
