/** A port listens by the other protocol. */
import { outputsNear, pushTo, subject, type Cause } from '../cause';
import { protocolName } from '../../../base/address';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const portProtocol: Cause = {
  id: 'port-protocol',
  title: 'A port listens by the other protocol',
  common: 0.5,
  *find(scene) {
    for (const { node, port } of outputsNear(scene)) {
      const protocol = port.protocol === 'sacn' ? 'artnet' : 'sacn';
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `${capital(scene.names.port(node.id, port.number))} listens to ${protocolName(protocol)}, its universe goes by ${protocolName(port.protocol)}.`,
        change: (world) => withPort(world, node.id, port.number, { protocol }),
        repair: pushTo(node.id, `Set ${scene.names.port(node.id, port.number)} to ${protocolName(port.protocol)}.`),
      };
    }
  },
};
