/** A lamp is in another mode than patched. */
import { lampCause } from '../cause';

export const lampMode = lampCause({
  id: 'lamp-mode',
  title: 'A lamp is in another mode than patched',
  common: 0.4,
  says: ({ number, mode }) => `Lamp ${number} is in another mode than ${mode}, or its channels are wired otherwise.`,
  change: () => ({ fits: false }),
  mend: ({ number, mode }) => `Set lamp ${number} to ${mode}, or patch it in the mode that it has.`,
});
