/** A lamp is in another mode than patched. */
import { byHand, subject, type Cause } from '../cause';
import { withLamp } from '../../simulate';

export const lampMode: Cause = {
  id: 'lamp-mode',
  common: 0.4,
  *find(scene) {
    for (const { id } of scene.world.lamps) {
      if (scene.near.subject.kind !== 'lamp') continue;
      const lamp = scene.records.lamp.find((one) => one.id === id)!;
      yield {
        about: subject('lamp', id),
        says: `Lamp ${lamp.number} is in another mode than ${lamp.mode}, or its channels are wired otherwise.`,
        change: (world) => withLamp(world, id, { fits: false }),
        repair: byHand(`Set lamp ${lamp.number} to ${lamp.mode}, or patch it in the mode that it has.`),
      };
    }
  },
};
