/** A port merges by the latest where the highest should win, or the other way round. */
import { outputsNear, pushTo, subject, type Cause } from '../cause';
import { capital } from '../words';
import { withPort } from '../../simulate';

export const mergeDiffers: Cause = {
  id: 'merge-differs',
  title: 'A port merges by the latest where the highest should win, or the other way round',
  common: 0.3,
  *find(scene) {
    for (const { node, port } of outputsNear(scene)) {
      const merge = port.merge === 'ltp' ? 'htp' : 'ltp';
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `${capital(scene.names.port(node.id, port.number))} merges by ${merge.toUpperCase()}, planned is ${port.merge.toUpperCase()}.`,
        change: (world) => withPort(world, node.id, port.number, { merge }),
        repair: pushTo(node.id, `Set the merge of ${scene.names.port(node.id, port.number)}.`),
      };
    }
  },
};
