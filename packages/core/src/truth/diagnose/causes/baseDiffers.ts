/** A sender counts its universes from another number: all lie one off. */
import { byHand, movedBy, sendersNear, subject, type Cause } from '../cause';
import { protocolName } from '../../../base/address';

export const baseDiffers: Cause = {
  id: 'base-differs',
  title: 'A sender counts its universes from another number: all lie one off',
  common: 0.7,
  *find(scene) {
    for (const { id, streams } of sendersNear(scene))
      for (const protocol of ['artnet', 'sacn'] as const)
        for (const by of [1, -1]) {
          if (!streams.some(({ wire }) => wire.protocol === protocol)) continue;
          yield {
            about: subject('machine', id),
            says: `${scene.names.of(id)} counts from another number by ${protocolName(protocol)}: all that it sends lies one ${by > 0 ? 'above' : 'below'} the plan.`,
            change: movedBy(scene, id, protocol, by),
            repair: byHand(`Move the first ${protocolName(protocol)} universe of ${scene.names.of(id)} by one.`),
          };
        }
  },
};
