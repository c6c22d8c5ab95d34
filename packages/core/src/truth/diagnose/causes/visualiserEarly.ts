/** A visualiser began before its sender and never noticed. */
import { byHand, subject, type Cause } from '../cause';
import { withVisualiser } from '../../simulate';

export const visualiserEarly: Cause = {
  id: 'visualiser-early',
  title: 'A visualiser began before its sender and never noticed',
  common: 0.5,
  *find(scene) {
    for (const { id, name } of scene.world.visualisers) {
      if (!scene.near.visualisers.has(id)) continue;
      yield {
        about: subject('machine', id),
        says: `${name} was started before its sender and has not noticed it.`,
        change: (world) => withVisualiser(world, id, () => ({ early: true })),
        repair: byHand(`Start ${name} again.`),
      };
    }
  },
};
