/** A visualiser counts Art-Net from another number. */
import { byHand, subject, type Cause } from '../cause';
import { withVisualiser } from '../../simulate';

export const visualiserBase: Cause = {
  id: 'visualiser-base',
  title: 'A visualiser counts Art-Net from another number',
  common: 0.6,
  *find(scene) {
    for (const { id, name } of scene.world.visualisers) {
      if (!scene.near.visualisers.has(id)) continue;
      for (const by of [1, -1])
        yield {
          about: subject('machine', id),
          says: `${name} counts Art-Net from another number: it listens one ${by > 0 ? 'above' : 'below'} what is sent.`,
          change: (world) =>
            withVisualiser(world, id, ({ listens }) => ({
              listens: listens.map((wire) =>
                wire.protocol === 'artnet' ? { ...wire, number: wire.number + by } : wire,
              ),
            })),
          repair: byHand(`Let ${name} count Art-Net from ${by > 0 ? 1 : 0}.`),
        };
    }
  },
};
