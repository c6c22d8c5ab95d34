/** Another box has a node’s address. */
import { byHand, nodesNear, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const addressDoubled: Cause = {
  id: 'address-doubled',
  title: 'Another box has a node’s address',
  common: 0.2,
  *find(scene) {
    for (const { id, name, address } of nodesNear(scene))
      yield {
        about: subject('machine', id),
        says: `Another box answers at ${address}, the address of ${name}.`,
        change: (world) => withNode(world, id, () => ({ doubled: true })),
        repair: byHand(`Find the other box at ${address} and give it an address of its own.`),
      };
  },
};
