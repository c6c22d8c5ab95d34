/** One universe of a sender is not sent, while it sends others. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const lineOff: Cause = {
  id: 'line-off',
  title: 'One universe of a sender is not sent, while it sends others',
  common: 0.5,
  *find(scene) {
    for (const { id, streams } of sendersNear(scene))
      for (const { universe } of streams) {
        if (universe === null || !scene.near.universes.includes(universe) || streams.length < 2) continue;
        yield {
          about: subject('machine', id),
          says: `${scene.names.of(id)} does not send universe ${universe}, though it sends others.`,
          change: (world) => withStreams(world, id, (one) => (one.universe === universe ? { on: false } : {})),
          repair: byHand(`Switch universe ${universe} on in the outputs of ${scene.names.of(id)}.`),
        };
      }
  },
};
