/** A visualiser listens at another of its interfaces. */
import { byHand, subject, type Cause } from '../cause';
import { withVisualiser } from '../../simulate';

export const visualiserInterface: Cause = {
  id: 'visualiser-interface',
  title: 'A visualiser listens at another of its interfaces',
  common: 0.6,
  *find(scene) {
    for (const { id, name, address } of scene.world.visualisers) {
      if (!scene.near.visualisers.has(id)) continue;
      const seen = scene.seen.visualisers.find((one) => one.id === id);
      if (!seen || seen.address === address) continue;
      yield {
        about: subject('interface', id),
        says: `${name} uses another interface: it answers from ${seen.address}, planned is ${address}.`,
        change: (world) => withVisualiser(world, id, () => ({ address: seen.address, multicast: false })),
        repair: byHand(`Choose the interface ${address} in the network settings of ${name}.`),
      };
    }
  },
};
