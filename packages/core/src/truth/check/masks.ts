/** Masks that disagree with the plan of addresses in which a machine lives. */
import { maskText } from '../../network/ip';
import { changed } from '../../show/edit';
import type { Check, Finding } from './finding';
import { withAddress } from './repairs';

export const masks: Check = {
  rule: 'masks disagree',
  *find({ machines, networkOf }): Generator<Finding> {
    for (const { machine, addresses } of machines)
      for (const { number, text, prefix } of addresses) {
        const network = networkOf(number);
        if (network && network.prefix !== prefix)
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [machine.id],
            sentence: `${machine.name} has the mask ${maskText(prefix)}; the others of ${network.name} have ${maskText(network.prefix)}.`,
            evidence: [`${text} / ${maskText(prefix)}`, `${network.network} / ${maskText(network.prefix)}`],
          };
      }
  },
  repairs(view, { subjects: [id] }) {
    const known = view.byId.get(id!);
    return (known?.addresses ?? []).flatMap((at) => {
      const network = view.networkOf(at.number);
      if (!known || !network || network.prefix === at.prefix) return [];
      const mask = maskText(network.prefix);
      const next = { address: at.text, prefix: network.prefix, way: 'fixed' } as const;
      return [
        {
          label: `Give ${known.machine.name} the mask ${mask}`,
          plan: {
            sentence: `Gave ${known.machine.name} the mask ${mask}`,
            changes: [changed('machine', known.machine, withAddress(known.machine, at, next))],
            lines: [{ subject: `${known.machine.name}, mask`, before: maskText(at.prefix), after: mask }],
          },
        },
      ];
    });
  },
};
