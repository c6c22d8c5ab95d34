/** A sender sends at another sACN priority than planned. */
import { byHand, sendersNear, subject, type Cause } from '../cause';
import { fromWireKey } from '../../../base/address';
import { withStreams } from '../../simulate';

export const priorityDiffers: Cause = {
  id: 'priority-differs',
  title: 'A sender sends at another sACN priority than planned',
  common: 0.6,
  *find(scene) {
    for (const { id, streams } of sendersNear(scene)) {
      const heard = scene.seen.streams.find(({ sender, key }) => sender === id && fromWireKey(key).protocol === 'sacn');
      const planned = streams.find(({ wire }) => wire.protocol === 'sacn');
      if (!heard || !planned || heard.priority === planned.priority) continue;
      const { priority } = heard;
      const others = scene.world.senders.filter((one) => one.id !== id && scene.near.senders.has(one.id));
      const equal = others.find((one) => one.streams.some((stream) => stream.priority === priority));
      const above = others.find(
        (one) =>
          one.streams.some((stream) => stream.priority < priority) &&
          one.streams.every((stream) => stream.priority > planned.priority),
      );
      yield {
        about: subject('machine', id),
        says: `${scene.names.of(id)} sends at priority ${priority}, planned is ${planned.priority}${equal ? `: the same as ${scene.names.of(equal.id)}` : above ? `: above ${scene.names.of(above.id)}` : ''}.`,
        change: (world) => withStreams(world, id, ({ wire }) => (wire.protocol === 'sacn' ? { priority } : {})),
        repair: byHand(`Set the sACN priority of ${scene.names.of(id)} to ${planned.priority}.`),
      };
    }
  },
};
