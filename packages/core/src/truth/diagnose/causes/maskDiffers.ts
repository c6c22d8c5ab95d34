/** A node has another mask than planned. */
import { nodesNear, pushTo, saidBy, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const maskDiffers: Cause = {
  id: 'mask-differs',
  title: 'A node has another mask than planned',
  common: 0.3,
  *find(scene) {
    for (const { id, name, prefix } of nodesNear(scene)) {
      const said = saidBy(scene, id);
      if (!said || said.prefix === null || said.prefix === prefix) continue;
      yield {
        about: subject('machine', id),
        says: `The mask of ${name} is ${said.prefix} bits, planned are ${prefix}: it may not hear who is outside.`,
        change: (world) => withNode(world, id, () => ({ prefix: said.prefix! })),
        repair: pushTo(id, `Give ${name} its planned mask.`),
      };
    }
  },
};
