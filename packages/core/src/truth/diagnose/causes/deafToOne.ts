/** A node does not hear one sender, though it hears others. */
import { byHand, nodesNear, sendersNear, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const deafToOne: Cause = {
  id: 'deaf-to-one',
  title: 'A node does not hear one sender, though it hears others',
  common: 0.25,
  *find(scene) {
    for (const { id, name } of nodesNear(scene))
      for (const sender of sendersNear(scene)) {
        if (sender.through) continue;
        yield {
          about: subject('machine', id),
          says: `${name} does not hear ${scene.names.of(sender.id)}: something on the way between them holds it back.`,
          change: (world) => withNode(world, id, ({ deafTo }) => ({ deafTo: [...deafTo, sender.address] })),
          repair: byHand(`Look at the way from ${scene.names.of(sender.id)} to ${name}: switches, networks, masks.`),
        };
      }
  },
};
