/** A port’s DMX cable is out or broken. */
import { byHand, outputsNear, subject, type Cause } from '../cause';
import { withPort } from '../../simulate';

export const portCable: Cause = {
  id: 'port-cable',
  title: 'A port’s DMX cable is out or broken',
  common: 0.6,
  *find(scene) {
    for (const { node, port } of outputsNear(scene))
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `The DMX cable of ${scene.names.port(node.id, port.number)} is out or broken.`,
        change: (world) => withPort(world, node.id, port.number, { cable: false }),
        repair: byHand(`Plug in or change the DMX cable of ${scene.names.port(node.id, port.number)}.`),
      };
  },
};
