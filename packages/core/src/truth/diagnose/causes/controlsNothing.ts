/** A sender gives its slots the priority 0: it is received and controls nothing there. */
import { formatWire, fromWireKey, wireKey } from '../../../base/address';
import { withStreams } from '../../simulate';
import { byHand, sendersNear, subject, type Cause } from '../cause';

export const controlsNothing: Cause = {
  id: 'controls-nothing',
  title: 'A sender is received and does not control the slots that lamps need',
  common: 0.2,
  *find(scene) {
    for (const { id } of sendersNear(scene)) {
      const weak = scene.seen.streams.filter(
        ({ sender, effect }) => sender === id && (effect === 'nothing' || effect === 'some'),
      );
      if (weak.length === 0) continue;
      const seen = new Map(weak.map(({ key, effect, offers = null }) => [key, { effect, offers }]));
      const where = weak.length === 1 ? formatWire(fromWireKey(weak[0]!.key)) : `${weak.length} universes`;
      const some = weak.every(({ effect }) => effect === 'some');
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} is received on ${where}, but controls ${some ? 'only some of the slots that lamps need' : 'no slot'} there.`,
        change: (world) => withStreams(world, id, ({ wire }) => seen.get(wireKey(wire)) ?? {}),
        repair: byHand(`Check the per-slot priorities of ${scene.names.of(id)}: 0 gives a slot up.`),
      };
    }
  },
};
