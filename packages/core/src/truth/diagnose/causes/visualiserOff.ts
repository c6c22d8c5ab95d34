/** A visualiser does not run. */
import { byHand, subject, type Cause } from '../cause';
import { withVisualiser } from '../../simulate';

export const visualiserOff: Cause = {
  id: 'visualiser-off',
  title: 'A visualiser does not run',
  common: 0.6,
  *find(scene) {
    for (const { id, name } of scene.world.visualisers) {
      if (!scene.near.visualisers.has(id)) continue;
      yield {
        about: subject('machine', id),
        says: `${name} does not run, or its network is off.`,
        change: (world) => withVisualiser(world, id, () => ({ on: false })),
        repair: byHand(`Start ${name}, and switch its network input on.`),
      };
    }
  },
};
