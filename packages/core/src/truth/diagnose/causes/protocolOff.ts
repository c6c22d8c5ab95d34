/** All that a sender sends by one protocol is missing, while it sends by the other. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { protocolName } from '../../../base/address';
import { withStreams } from '../../simulate';

export const protocolOff: Cause = {
  id: 'protocol-off',
  title: 'All that a sender sends by one protocol is missing, while it sends by the other',
  common: 0.5,
  *find(scene) {
    for (const { id, streams } of sendersNear(scene)) {
      const protocols = new Set(streams.map(({ wire }) => wire.protocol));
      if (protocols.size < 2) continue;
      for (const protocol of protocols)
        yield {
          about: subject('machine', id),
          says: `${scene.names.of(id)} sends nothing by ${protocolName(protocol)}, though it sends by the other protocol.`,
          change: (world) => withStreams(world, id, ({ wire }) => (wire.protocol === protocol ? { on: false } : {})),
          repair: byHand(`Switch ${protocolName(protocol)} on at ${scene.names.of(id)}.`),
        };
    }
  },
};
