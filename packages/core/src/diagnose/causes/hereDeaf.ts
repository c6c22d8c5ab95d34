/** This computer hears nothing at all. */
import { byHand, subject, type Cause } from '../cause';

export const hereDeaf: Cause = {
  id: 'here-deaf',
  common: 0.5,
  *find() {
    yield {
      about: subject('interface', 'here'),
      says: 'This computer hears nothing at all: it uses another interface, or its cable is out.',
      change: (world) => ({ ...world, here: { ...world.here, hears: { sacn: false, artnet: false } } }),
      repair: byHand('Look at This computer: choose the interface of the show network, and its cable.'),
    };
  },
};
