/** A sender’s packets end before the last lamp. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const shortPackets: Cause = {
  id: 'short-packets',
  title: 'A sender’s packets end before the last lamp',
  common: 0.2,
  *find(scene) {
    for (const { id } of sendersNear(scene)) {
      const slots = Math.min(512, ...scene.seen.streams.filter(({ sender }) => sender === id).map((one) => one.slots));
      if (slots === 512) continue;
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends only ${slots} slots: lamps after that get nothing.`,
        change: (world) => withStreams(world, id, () => ({ slots })),
        repair: byHand(`Let ${scene.names.of(id)} send all 512 slots.`),
      };
    }
  },
};
