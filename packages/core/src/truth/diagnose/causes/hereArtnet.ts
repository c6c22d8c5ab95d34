/** This computer hears nothing of Art-Net. */
import { fromWireKey } from '../../../base/address';
import { byHand, subject, type Cause } from '../cause';

export const hereArtnet: Cause = {
  id: 'here-artnet',
  title: 'This computer hears nothing of Art-Net',
  common: 0.3,
  *find(scene) {
    // What is heard of others was not held back here.
    if (scene.seen.nodes.length > 0 || scene.seen.streams.some(({ key }) => fromWireKey(key).protocol === 'artnet'))
      return;
    yield {
      about: subject('interface', 'here'),
      says: 'This computer hears no Art-Net at all: its interface, or a firewall, holds it back.',
      change: (world) => ({ ...world, here: { ...world.here, hears: { ...world.here.hears, artnet: false } } }),
      repair: byHand('Look at This computer: choose the wired interface, and allow UDP port 6454.'),
    };
  },
};
