/** A port is set to another universe. */
import { outputsNear, pushTo, subject, type Cause } from '../cause';
import { formatWire } from '../../../base/address';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const portElsewhere: Cause = {
  id: 'port-elsewhere',
  title: 'A port is set to another universe',
  common: 0.8,
  *find(scene) {
    for (const { node, port, said } of outputsNear(scene)) {
      if (!said || said.use !== 'out' || said.wire === port.wire) continue;
      const { wire } = said;
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `${capital(scene.names.port(node.id, port.number))} is set to ${formatWire({ protocol: port.protocol, number: wire })}, planned is ${formatWire({ protocol: port.protocol, number: port.wire })}.`,
        change: (world) => withPort(world, node.id, port.number, { wire }),
        repair: pushTo(node.id, `Set ${scene.names.port(node.id, port.number)} as planned.`),
      };
    }
  },
};
