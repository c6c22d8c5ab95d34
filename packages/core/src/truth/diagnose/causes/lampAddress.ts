/** A lamp is set to another start address. */
import { lampCause } from '../cause';

export const lampAddress = lampCause({
  id: 'lamp-address',
  title: 'A lamp is set to another start address',
  common: 0.5,
  says: ({ number, channel }) => `Lamp ${number} is set to another start address than ${channel}.`,
  change: ({ patched, footprint }) => ({ set: patched + footprint }),
  mend: ({ number, channel }) => `Set the start address of lamp ${number} to ${channel}.`,
});
