/** The same address at two machines, or twice at one. */
import type { EffectiveAddress } from '../../network/ip';
import type { Check, Finding, KnownMachine } from './finding';
import { moveInto, networkFor } from './repairs';

export const sameAddress: Check = {
  rule: 'same address',
  *find({ machines }): Generator<Finding> {
    const first = new Map<number, { known: KnownMachine; at: EffectiveAddress }>();
    for (const known of machines)
      for (const at of known.addresses) {
        const other = first.get(at.number);
        if (!other) first.set(at.number, { known, at });
        else
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [other.known.machine.id, known.machine.id],
            sentence:
              other.known === known
                ? `${known.machine.name} has the address ${at.text} twice.`
                : `${other.known.machine.name} and ${known.machine.name} both have the address ${at.text}.`,
            evidence: [],
          };
      }
  },
  repairs(view, { subjects }) {
    const [, second] = subjects.map((id) => view.byId.get(id));
    const network = second?.addresses[0] && networkFor(view, second.addresses[0].number);
    const both = [...new Set(subjects)].flatMap((id) => view.byId.get(id) ?? []).reverse();
    return network ? both.flatMap((known) => moveInto(view, known, network)) : [];
  },
};
