/** Ports of one page that need different nets or sub-nets, which Art-Net gives a page only once. */
import { splitPortAddress } from '../../base/address';
import { wireNumber } from '../../network/machine';
import type { Check, Finding } from './finding';

export const pages: Check = {
  rule: 'one sub-net a page',
  *find({ machines, records }): Generator<Finding> {
    const universes = new Map(records.universe.map((one) => [one.number, one]));
    for (const { machine, model } of machines) {
      if (!model || model.perPage === 1) continue;
      const pageNets = new Map<number, { net: string; port: number }>();
      for (const port of machine.ports) {
        if (port.use !== 'out' && port.use !== 'in') continue;
        const page = Math.floor((port.number - 1) / model.perPage);
        const { net, sub } = splitPortAddress(wireNumber(port, universes));
        const there = pageNets.get(page);
        const said = `${net}.${sub}`;
        if (!there) pageNets.set(page, { net: said, port: port.number });
        else if (there.net !== said) {
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [machine.id],
            sentence: `${machine.name}, ports ${there.port} and ${port.number}: they share one net and sub-net, and need ${there.net} and ${said}.`,
            evidence: [
              `${model.maker} ${model.name} tells of ${model.perPage} ports together, with one net and sub-net.`,
            ],
          };
          break;
        }
      }
    }
  },
  repairs: () => [],
};
