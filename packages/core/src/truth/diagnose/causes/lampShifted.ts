/** A lamp is set a few channels off. */
import { lampCause } from '../cause';

export const lampShifted = lampCause({
  id: 'lamp-shifted',
  title: 'A lamp is set a few channels off',
  common: 0.4,
  says: ({ number, channel }) => `Lamp ${number} is set a channel or two off ${channel}.`,
  change: ({ patched, footprint }) => ({ set: patched + Math.min(1, footprint - 1) }),
  mend: ({ number, channel }) => `Set the start address of lamp ${number} to ${channel}.`,
});
