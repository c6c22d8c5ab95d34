/** A sender’s network output is off, or the sender does not run. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withSender } from '../../simulate';

export const outputOff: Cause = {
  id: 'output-off',
  title: 'A sender’s network output is off, or the sender does not run',
  common: 0.9,
  *find(scene) {
    for (const { id, name } of sendersNear(scene))
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends nothing: its output is off, or it does not run.`,
        change: (world) => withSender(world, id, ({ on }) => ({ on: on && false })),
        repair: byHand(`Look whether ${name} runs, and switch its network output on.`),
      };
  },
};
