/** More senders of a universe than the port that carries it can merge. */
import { countOf } from '../../show/edit';
import type { Check, Finding } from './finding';
import { flowOf } from './flowView';

export const tooManySources: Check = {
  rule: 'more sources than merge',
  *find(view): Generator<Finding> {
    const { senders, carriers, inputs } = flowOf(view);
    for (const [universe, there] of carriers) {
      const count = Math.max(senders.get(universe)?.length ?? 0, inputs.get(universe)?.length ?? 0);
      if (count < 2) continue;
      for (const { known, port } of there) {
        if (!port || !known.model) continue;
        const most = port.merge === 'none' ? 1 : known.model.sources;
        if (count > most)
          yield {
            rule: this.rule,
            weight: 'must fix',
            subjects: [known.machine.id],
            sentence: `${known.machine.name}, port ${port.number}, gets universe ${universe} from ${count} senders and takes ${countOf(most, 'source')}.`,
            evidence: (senders.get(universe) ?? []).map(({ sender }) => sender.name),
          };
      }
    }
  },
  // Which sender is one too many is for a person to say.
  repairs: () => [],
};
