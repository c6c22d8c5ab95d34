/** A node answers at another address than planned. */
import { nodesNear, pushTo, saidBy, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const nodeMoved: Cause = {
  id: 'node-moved',
  title: 'A node answers at another address than planned',
  common: 0.5,
  *find(scene) {
    for (const { id, name, address } of nodesNear(scene)) {
      const said = saidBy(scene, id);
      if (!said || said.address === address) continue;
      yield {
        about: subject('machine', id),
        says: `${name} is at ${said.address}, planned is ${address}: what is sent to it alone does not reach it.`,
        change: (world) => withNode(world, id, () => ({ address: said.address })),
        repair: pushTo(id, `Give ${name} its planned address.`),
      };
    }
  },
};
