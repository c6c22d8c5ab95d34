/** A lamp has no power or is broken. */
import { byHand, subject, type Cause } from '../cause';
import { withLamp } from '../../simulate';

export const lampDead: Cause = {
  id: 'lamp-dead',
  common: 0.5,
  *find(scene) {
    for (const { id } of scene.world.lamps) {
      if (scene.near.subject.kind !== 'lamp') continue;
      const lamp = scene.records.lamp.find((one) => one.id === id)!;
      yield {
        about: subject('lamp', id),
        says: `Lamp ${lamp.number} has no power, or is broken.`,
        change: (world) => withLamp(world, id, { works: false }),
        repair: byHand(`Look whether lamp ${lamp.number} has power.`),
      };
    }
  },
};
