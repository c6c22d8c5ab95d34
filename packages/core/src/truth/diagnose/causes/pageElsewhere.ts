/** Net or sub-net of a node’s page is turned: all its ports lie elsewhere at once (Art-Net 4, ArtAddress). */
import { formatWire } from '../../../base/address';
import { withNode } from '../../simulate';
import { nodesNear, pushTo, saidBy, subject, type Cause } from '../cause';

const pageOf = (wire: number): number => wire >> 4;

export const pageElsewhere: Cause = {
  id: 'page-elsewhere',
  title: 'Net or sub-net of a node’s page is turned',
  common: 0.6,
  *find(scene) {
    for (const { id, name, ports } of nodesNear(scene)) {
      const said = new Map(saidBy(scene, id)?.ports.map((one) => [one.number, one]));
      const moved = ports.filter(({ number, use, wire }) => {
        const its = said.get(number);
        return use !== 'off' && its && its.use !== 'off' && pageOf(its.wire) !== pageOf(wire);
      });
      const pages = new Set(moved.map(({ number }) => pageOf(said.get(number)!.wire)));
      if (moved.length < 2 || pages.size !== 1) continue;
      const [first] = moved;
      const now = formatWire({ protocol: first!.protocol, number: said.get(first!.number)!.wire });
      yield {
        about: subject('machine', id),
        says: `Net or sub-net of ${name} is turned: its ports lie elsewhere, port ${first!.number} on ${now} instead of ${formatWire({ protocol: first!.protocol, number: first!.wire })}.`,
        change: (world) =>
          withNode(world, id, (node) => ({
            ports: node.ports.map((port) =>
              moved.some(({ number }) => number === port.number)
                ? { ...port, wire: said.get(port.number)!.wire }
                : port,
            ),
          })),
        repair: pushTo(id, `Set net, sub-net and universes of ${name} as planned.`),
      };
    }
  },
};
