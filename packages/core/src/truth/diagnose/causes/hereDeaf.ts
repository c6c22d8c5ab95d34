/** This computer hears nothing at all. */
import { byHand, subject, type Cause } from '../cause';

export const hereDeaf: Cause = {
  id: 'here-deaf',
  title: 'This computer hears nothing at all',
  common: 0.5,
  *find(scene) {
    // What is heard of others was not held back here.
    if (scene.seen.nodes.length > 0 || scene.seen.streams.length > 0) return;
    yield {
      about: subject('interface', 'here'),
      says: 'This computer hears nothing at all: it uses another interface, or its cable is out.',
      change: (world) => ({ ...world, here: { ...world.here, hears: { sacn: false, artnet: false } } }),
      repair: byHand('Look at This computer: choose the interface of the show network, and its cable.'),
    };
  },
};
