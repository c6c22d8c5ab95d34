/** A sender sends another start code than that of levels. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const startCode: Cause = {
  id: 'start-code',
  title: 'A sender sends another start code than that of levels',
  common: 0.2,
  *find(scene) {
    for (const { id } of sendersNear(scene))
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends a start code that is not that of levels.`,
        change: (world) => withStreams(world, id, () => ({ startCode: 0x55 })),
        repair: byHand(`Set the start code of ${scene.names.of(id)} to 0.`),
      };
  },
};
