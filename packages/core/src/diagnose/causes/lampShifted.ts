/** A lamp is set a few channels off. */
import { byHand, subject, type Cause } from '../cause';
import { withLamp } from '../../simulate';

export const lampShifted: Cause = {
  id: 'lamp-shifted',
  common: 0.4,
  *find(scene) {
    for (const { id, patched, footprint } of scene.world.lamps) {
      if (scene.near.subject.kind !== 'lamp') continue;
      const lamp = scene.records.lamp.find((one) => one.id === id)!;
      yield {
        about: subject('lamp', id),
        says: `Lamp ${lamp.number} is set a channel or two off ${lamp.channel}.`,
        change: (world) => withLamp(world, id, { set: patched + Math.min(1, footprint - 1) }),
        repair: byHand(`Set the start address of lamp ${lamp.number} to ${lamp.channel}.`),
      };
    }
  },
};
