/** A sender sends Art-Net in another net or sub-net. */
import { byHand, movedBy, sendersNear, subject, type Cause } from '../cause';

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
          change: movedBy(scene, id, 'artnet', by),
          repair: byHand(`Set ${what} of ${scene.names.of(id)} as planned.`),
        };
    }
  },
};
