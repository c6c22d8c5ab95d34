/** A node does something else than planned when signal is lost. */
import { nodesNear, pushTo, saidBy, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const failSafe: Cause = {
  id: 'fail-safe',
  title: 'A node does something else than planned when signal is lost',
  common: 0.3,
  *find(scene) {
    for (const { id, name, failSafe } of nodesNear(scene)) {
      const said = saidBy(scene, id);
      if (!said || said.failSafe === '' || said.failSafe === failSafe) continue;
      yield {
        about: subject('machine', id),
        says: `When signal is lost ${name} does “${said.failSafe}”, planned is “${failSafe}”.`,
        change: (world) => withNode(world, id, () => ({ failSafe: said.failSafe })),
        repair: pushTo(id, `Set what ${name} does when signal is lost.`),
      };
    }
  },
};
