/** All ports of a page are set to another net or sub-net. */
import { nodesNear, pushTo, saidBy, subject, type Cause } from '../cause';
import { withNode } from '../../simulate';

export const pageElsewhere: Cause = {
  id: 'page-elsewhere',
  common: 0.4,
  *find(scene) {
    for (const { id, name, ports } of nodesNear(scene)) {
      const said = new Map(saidBy(scene, id)?.ports.map((one) => [one.number, one]));
      const moved = ports.filter(({ number, use, wire }) => {
        const its = said.get(number);
        return use === 'out' && its?.use === 'out' && its.wire !== wire;
      });
      const by = new Set(moved.map(({ number, wire }) => said.get(number)!.wire - wire));
      const [shift] = by;
      if (moved.length < 2 || by.size !== 1) continue;
      yield {
        about: subject('machine', id),
        says: `${moved.length} ports of ${name} are set to other universes, all ${Math.abs(shift!)} ${shift! > 0 ? 'above' : 'below'} the plan.`,
        change: (world) =>
          withNode(world, id, (node) => ({
            ports: node.ports.map((port) =>
              moved.some(({ number }) => number === port.number) ? { ...port, wire: port.wire + shift! } : port,
            ),
          })),
        repair: pushTo(id, `Set the ports of ${name} as planned.`),
      };
    }
  },
};
