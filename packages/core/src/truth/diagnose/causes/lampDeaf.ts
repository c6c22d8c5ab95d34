/** A lamp takes DMX and answers nothing when it is asked. */
import { lampCause } from '../cause';

export const lampDeaf = lampCause({
  id: 'lamp-deaf',
  title: 'A lamp takes DMX and answers nothing',
  common: 0.2,
  says: ({ number }) => `Lamp ${number} takes DMX and answers nothing: its RDM is off, or two have its UID.`,
  change: () => ({ deaf: true }),
  mend: ({ number }) => `Switch on RDM at lamp ${number}, or give it a UID of its own.`,
});
