/** A node’s input sends at another priority than planned. */
import { nodesNear, pushTo, saidBy, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const inputPriority: Cause = {
  id: 'input-priority',
  title: 'A node’s input sends at another priority than planned',
  common: 0.3,
  *find(scene) {
    for (const { id, name, priority, ports } of nodesNear(scene)) {
      const said = saidBy(scene, id);
      if (!said || said.priority === priority || !ports.some(({ use }) => use === 'in')) continue;
      yield {
        about: subject('machine', id),
        says: `The input of ${name} sends at priority ${said.priority}, planned is ${priority}.`,
        change: (world) => withNode(world, id, () => ({ priority: said.priority })),
        repair: pushTo(id, `Set the priority of ${name}.`),
      };
    }
  },
};
