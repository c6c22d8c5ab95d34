/** A port is an input where it should put out. */
import { outputsNear, pushTo, subject, type Cause } from '../cause';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const direction: Cause = {
  id: 'direction',
  title: 'A port is an input where it should put out',
  common: 0.3,
  *find(scene) {
    for (const { node, port } of outputsNear(scene))
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `${capital(scene.names.port(node.id, port.number))} is set as an input.`,
        change: (world) => withPort(world, node.id, port.number, { use: 'in' }),
        repair: pushTo(node.id, `Turn ${scene.names.port(node.id, port.number)} to an output.`),
      };
  },
};
