/** A sender names a synchronisation universe on which nobody sends. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const syncNobody: Cause = {
  id: 'sync-nobody',
  title: 'A sender names a synchronisation universe on which nobody sends',
  common: 0.2,
  *find(scene) {
    for (const { id, streams } of sendersNear(scene)) {
      if (!streams.some(({ wire }) => wire.protocol === 'sacn')) continue;
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} names a synchronisation universe on which nobody sends: its levels wait for ever.`,
        change: (world) =>
          withStreams(world, id, ({ wire }) => (wire.protocol === 'sacn' ? { syncAddress: 63_999 } : {})),
        repair: byHand(`Switch synchronisation off at ${scene.names.of(id)}, or start who sends it.`),
      };
    }
  },
};
