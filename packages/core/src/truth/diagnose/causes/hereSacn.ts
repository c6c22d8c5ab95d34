/** This computer hears nothing of sACN. */
import { fromWireKey } from '../../../base/address';
import { byHand, subject, type Cause } from '../cause';

export const hereSacn: Cause = {
  id: 'here-sacn',
  title: 'This computer hears nothing of sACN',
  common: 0.3,
  *find(scene) {
    // What is heard of others was not held back here.
    if (scene.seen.streams.some(({ key }) => fromWireKey(key).protocol === 'sacn')) return;
    yield {
      about: subject('interface', 'here'),
      says: 'This computer hears no sACN at all: its interface, or a firewall, holds it back.',
      change: (world) => ({ ...world, here: { ...world.here, hears: { ...world.here.hears, sacn: false } } }),
      repair: byHand('Look at This computer: choose the wired interface, and allow UDP port 5568.'),
    };
  },
};
