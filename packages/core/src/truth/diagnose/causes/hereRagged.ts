/** This computer’s own link loses packets. */
import { byHand, subject, type Cause } from '../cause';

export const hereRagged: Cause = {
  id: 'here-ragged',
  title: 'This computer’s own link loses packets',
  common: 0.3,
  *find() {
    yield {
      about: subject('interface', 'here'),
      says: 'This computer’s own link loses packets: what it hears says little of the others.',
      change: (world) => ({ ...world, here: { ...world.here, ragged: true } }),
      repair: byHand('Use a cable: a wireless link loses what nobody else loses.'),
    };
  },
};
