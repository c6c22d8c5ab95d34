/** Somebody sends a universe to a node alone: what goes there by unicast is not received here. */
import { formatWire, wireKey } from '../../../base/address';
import { addSender, observe, plainStream, portKey } from '../../simulate';
import { byHand, outputsNear, subject, type Cause } from '../cause';

/** The address of somebody of whom nothing is received */
export const UNHEARD = 'not received here';

export const unheardSource: Cause = {
  id: 'unheard-source',
  title: 'Another device sends a universe to a node by unicast, which is not received here',
  common: 0.3,
  *find(scene) {
    const merging = [...outputsNear(scene)].filter(({ said }) => said?.merging && said.active);
    if (merging.length === 0) return;
    const planned = observe(scene.world);
    for (const { node, port } of merging) {
      if (planned.ports.get(portKey(node.id, port.number))?.port.merging !== false) continue;
      const wire = { protocol: port.protocol, number: port.wire };
      const priorities = scene.world.senders.flatMap(({ streams }) =>
        streams.flatMap((one) => (wireKey(one.wire) === wireKey(wire) ? [one.priority] : [])),
      );
      const stream = plainStream(wire, { priority: Math.max(0, ...priorities), travels: { to: [node.address] } });
      yield {
        about: subject('stream', UNHEARD, `${node.id} ${port.number}`),
        says: `Another device sends ${formatWire(wire)} to ${scene.names.port(node.id, port.number)} by unicast. It is not received here.`,
        change: (world) => {
          const its = world.senders.find(({ id }) => id === UNHEARD);
          if (its)
            return {
              ...world,
              senders: world.senders.map((one) => (one === its ? { ...one, streams: [...one.streams, stream] } : one)),
            };
          return addSender(world, { id: UNHEARD, name: UNHEARD, address: '', streams: [stream] });
        },
        repair: byHand(
          `Find the device: compare the sources on the display of ${scene.names.of(node.id)} with the plan.`,
        ),
      };
    }
  },
};
