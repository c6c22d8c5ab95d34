/** A port’s DMX cable is out or broken. */
import { byHand, outputsNear, subject, type Cause } from '../cause';
import { withPort, type World } from '../../simulate';

/** Lamps that may hang on several ports of one universe, taken to hang on this one: then it is its cable that they need. */
const hangingAt = (world: World, nodeId: string, port: number): World => ({
  ...world,
  lamps: world.lamps.map((lamp) => {
    const here = lamp.ports.filter((one) => one.nodeId === nodeId && one.port === port);
    return here.length > 0 ? { ...lamp, ports: here } : lamp;
  }),
});

export const portCable: Cause = {
  id: 'port-cable',
  title: 'A port’s DMX cable is out or broken',
  common: 0.6,
  *find(scene) {
    for (const { node, port } of outputsNear(scene))
      yield {
        about: subject('port', node.id, String(port.number)),
        says: `The DMX cable of ${scene.names.port(node.id, port.number)} is out or broken.`,
        change: (world) => hangingAt(withPort(world, node.id, port.number, { cable: false }), node.id, port.number),
        repair: byHand(`Plug in or change the DMX cable of ${scene.names.port(node.id, port.number)}.`),
      };
  },
};
