/** A lamp hangs on another cable than planned. */
import { byHand, subject, type Cause } from '../cause';
import { withLamp } from '../../simulate';

export const lampElsewhere: Cause = {
  id: 'lamp-elsewhere',
  common: 0.3,
  *find(scene) {
    for (const { id } of scene.world.lamps) {
      if (scene.near.subject.kind !== 'lamp') continue;
      const lamp = scene.records.lamp.find((one) => one.id === id)!;
      yield {
        about: subject('lamp', id),
        says: `Lamp ${lamp.number} hangs on another cable than planned.`,
        change: (world) => withLamp(world, id, { ports: [] }),
        repair: byHand(`Follow the DMX cable of lamp ${lamp.number} back to its port.`),
      };
    }
  },
};
