/** A node runs another firmware than planned. */
import { byHand, nodesNear, saidBy, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const firmware: Cause = {
  id: 'firmware',
  title: 'A node runs another firmware than planned',
  common: 0.2,
  *find(scene) {
    for (const { id, name, firmware } of nodesNear(scene)) {
      const said = saidBy(scene, id);
      if (!said || firmware === '' || said.firmware === firmware) continue;
      yield {
        about: subject('machine', id),
        says: `${name} runs firmware ${said.firmware}, planned is ${firmware}.`,
        change: (world) => withNode(world, id, () => ({ firmware: said.firmware })),
        repair: byHand(`Bring ${name} to firmware ${firmware}, or plan it with ${said.firmware}.`),
      };
    }
  },
};
