/** A port is off. */
import { outputsNear, pushTo, subject, type Cause } from '../cause';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const portOff: Cause = {
  id: 'port-off',
  title: 'A port is off',
  common: 0.6,
  *find(scene) {
    for (const { node, port } of outputsNear(scene))
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `${capital(scene.names.port(node.id, port.number))} is switched off.`,
        change: (world) => withPort(world, node.id, port.number, { use: 'off' }),
        repair: pushTo(node.id, `Switch ${scene.names.port(node.id, port.number)} on as planned.`),
      };
  },
};
