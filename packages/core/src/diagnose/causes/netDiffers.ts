/** A sender sends Art-Net in another net or sub-net. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { withStreams } from '../../simulate';

export const netDiffers: Cause = {
  id: 'net-differs',
  title: 'A sender sends Art-Net in another net or sub-net',
  common: 0.3,
  *find(scene) {
    for (const { id, streams } of sendersNear(scene)) {
      if (!streams.some(({ wire }) => wire.protocol === 'artnet')) continue;
      for (const [by, what] of [
        [16, 'sub-net'],
        [256, 'net'],
      ] as const)
        yield {
          about: subject('machine', id),
          says: `${scene.names.of(id)} sends Art-Net in another ${what}.`,
          change: (world) =>
            withStreams(world, id, ({ wire }) =>
              wire.protocol === 'artnet' ? { wire: { ...wire, number: wire.number + by } } : {},
            ),
          repair: byHand(`Set ${what} of ${scene.names.of(id)} as planned.`),
        };
    }
  },
};
