/** A sender sends by another of its interfaces than planned. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withSender } from '../../simulate';

export const otherInterface: Cause = {
  id: 'other-interface',
  title: 'A sender sends by another of its interfaces than planned',
  common: 0.6,
  *find(scene) {
    for (const { id, address } of sendersNear(scene)) {
      const from = new Set(scene.seen.streams.filter(({ sender }) => sender === id).map((one) => one.address));
      for (const other of from) {
        if (other === address) continue;
        yield {
          about: subject('interface', id),
          says: `${scene.names.of(id)} sends by another interface: from ${other}, planned is ${address}.`,
          change: (world) => withSender(world, id, () => ({ address: other })),
          repair: byHand(`Choose the interface ${address} in the network settings of ${scene.names.of(id)}.`),
        };
      }
    }
  },
};
