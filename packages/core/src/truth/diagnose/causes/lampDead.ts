/** A lamp has no power or is broken. */
import { lampCause } from '../cause';

export const lampDead = lampCause({
  id: 'lamp-dead',
  title: 'A lamp has no power or is broken',
  common: 0.5,
  says: ({ number }) => `Lamp ${number} has no power, or is broken.`,
  change: () => ({ works: false }),
  mend: ({ number }) => `Look whether lamp ${number} has power.`,
});
