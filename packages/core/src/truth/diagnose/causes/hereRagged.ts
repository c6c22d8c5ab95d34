/** This computer receives packets late or with gaps: its link, or the computer itself, cannot keep up. */
import { byHand, subject, type Cause } from '../cause';

export const hereRagged: Cause = {
  id: 'here-ragged',
  title: 'This computer receives packets late or with gaps',
  common: 0.3,
  *find() {
    yield {
      about: subject('interface', 'here'),
      says: 'This computer receives packets late or with gaps. How evenly others send is unknown.',
      change: (world) => ({ ...world, here: { ...world.here, ragged: true } }),
      repair: byHand('Use a network cable instead of Wi-Fi, and close what keeps this computer busy.'),
    };
  },
};
