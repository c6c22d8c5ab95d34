/** More multicast groups on the network than a switch follows. */
import { countOf } from '../../show/edit';
import type { Check, Finding } from './finding';
import { loadsOf } from './wireLoad';

export const multicastGroups: Check = {
  rule: 'multicast groups',
  *find(view): Generator<Finding> {
    const { groups: count } = loadsOf(view);
    for (const { machine, model } of view.machines)
      if (machine.kind === 'switch' && model && model.groups !== null && count > model.groups)
        yield {
          rule: this.rule,
          weight: 'must fix',
          subjects: [machine.id],
          sentence: `${machine.name} follows ${countOf(model.groups, 'multicast group')}; ${countOf(count, 'universe')} ${count === 1 ? 'travels' : 'travel'} by multicast, and it floods the others to every port.`,
          evidence: [`${count} sACN universes × 1 group`],
        };
  },
  repairs: () => [],
};
