/** A lamp is set to another start address. */
import { byHand, subject, type Cause } from '../cause';
import { withLamp } from '../../simulate';

export const lampAddress: Cause = {
  id: 'lamp-address',
  common: 0.5,
  *find(scene) {
    for (const { id, patched, footprint } of scene.world.lamps) {
      if (scene.near.subject.kind !== 'lamp') continue;
      const lamp = scene.records.lamp.find((one) => one.id === id)!;
      yield {
        about: subject('lamp', id),
        says: `Lamp ${lamp.number} is set to another start address than ${lamp.channel}.`,
        change: (world) => withLamp(world, id, { set: patched + footprint }),
        repair: byHand(`Set the start address of lamp ${lamp.number} to ${lamp.channel}.`),
      };
    }
  },
};
