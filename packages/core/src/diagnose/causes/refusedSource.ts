/** A port has its places taken and lets this sender in no more. */
import { byHand, outputsNear, portName, subject, type Cause } from '../cause';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const refusedSource: Cause = {
  id: 'refused-source',
  common: 0.2,
  *find(scene) {
    for (const { node, port, said } of outputsNear(scene)) {
      if (!said?.merging) continue;
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `${capital(portName(scene, node.id, port.number))} merges already as many senders as it can, and lets no other in.`,
        change: (world) => withPort(world, node.id, port.number, { merge: port.merge }),
        repair: byHand(`Stop one of its senders, or cancel the merge at ${node.name}.`),
        likelier: 0.2,
      };
    }
  },
};
