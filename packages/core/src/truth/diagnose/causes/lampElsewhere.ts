/** A lamp hangs on another cable than planned. */
import { lampCause } from '../cause';

export const lampElsewhere = lampCause({
  id: 'lamp-elsewhere',
  title: 'A lamp hangs on another cable than planned',
  common: 0.3,
  says: ({ number }) => `Lamp ${number} hangs on another cable than planned.`,
  change: () => ({ ports: [], elsewhere: true }),
  mend: ({ number }) => `Follow the DMX cable of lamp ${number} back to its port.`,
});
