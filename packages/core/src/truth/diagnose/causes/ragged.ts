/** What a sender sends comes late or with gaps. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const ragged: Cause = {
  id: 'ragged',
  title: 'What a sender sends comes late or with gaps',
  common: 0.4,
  *find(scene) {
    if (scene.seen.lateHere) return;
    for (const { id } of sendersNear(scene))
      yield {
        about: subject('machine', id),
        says: `What ${scene.names.of(id)} sends comes late or with gaps: its link, or the machine itself, cannot keep up.`,
        change: (world) => withStreams(world, id, () => ({ ragged: true })),
        repair: byHand(`Look at the network cable of ${scene.names.of(id)}; a wireless link is none for this.`),
      };
  },
};
