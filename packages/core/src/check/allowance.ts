/** A sender that is planned to send more universes or parameters than its model is allowed. */
import { footprintOf } from '../fixture';
import type { Check, Finding } from './finding';
import { machineOfSource } from './finding';

export const allowance: Check = {
  rule: 'beyond the allowance',
  *find(view): Generator<Finding> {
    let channels: Map<number, number> | undefined;
    for (const source of view.records.source) {
      const known = machineOfSource(source, view);
      const model = known?.model;
      if (!known || !model) continue;
      const about = { rule: this.rule, weight: 'must fix', subjects: [known.machine.id] } as const;
      if (model.universes !== null && source.universes.length > model.universes)
        yield {
          ...about,
          sentence: `${source.name} is planned to send ${source.universes.length} universes; a ${model.name} sends ${model.universes}.`,
          evidence: [],
        };
      if (model.parameters === null) continue;
      channels ??= channelsByUniverse(view.records);
      const used = source.universes.reduce((sum, universe) => sum + (channels!.get(universe) ?? 0), 0);
      if (used > model.parameters)
        yield {
          ...about,
          sentence: `${source.name} is planned to send ${used} parameters; a ${model.name} is allowed ${model.parameters}.`,
          evidence: [],
        };
    }
  },
  repairs: () => [],
};

function channelsByUniverse({ lamp, type }: Parameters<typeof machineOfSource>[1]['records']): Map<number, number> {
  const footprints = new Map(
    type.flatMap((one) => one.modes.map((mode) => [`${one.id} ${mode.name}`, footprintOf(mode)])),
  );
  const channels = new Map<number, number>();
  for (const { typeId, mode, universe } of lamp)
    channels.set(universe, (channels.get(universe) ?? 0) + (footprints.get(`${typeId} ${mode}`) ?? 0));
  return channels;
}
