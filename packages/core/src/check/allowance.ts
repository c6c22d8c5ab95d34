/** A sender that is planned to send more universes or parameters than its model is allowed. */
import { footprintOf } from '../fixture';
import { universesOf } from '../flow';
import type { Source } from '../show';
import { machineOfSource, type Check, type Finding, type NetworkView } from './finding';

const footprints = new WeakMap<NetworkView, ReadonlyMap<number, number>>();

/** Parameters patched on each universe; made once for each view. */
function parametersByUniverse(view: NetworkView): ReadonlyMap<number, number> {
  const known = footprints.get(view);
  if (known) return known;
  const { lamp, type } = view.records;
  const sizes = new Map(type.flatMap((one) => one.modes.map((mode) => [`${one.id} ${mode.name}`, footprintOf(mode)])));
  const made = new Map<number, number>();
  for (const { typeId, mode, universe } of lamp)
    made.set(universe, (made.get(universe) ?? 0) + (sizes.get(`${typeId} ${mode}`) ?? 0));
  footprints.set(view, made);
  return made;
}

function used(source: Source, view: NetworkView) {
  const universes = universesOf(source);
  const by = parametersByUniverse(view);
  return {
    universes: universes.length,
    parameters: universes.reduce((sum, universe) => sum + (by.get(universe) ?? 0), 0),
  };
}

/** What a sender would use of what its model allows, in words; undefined if no model is known. */
export function allowanceText(source: Source, view: NetworkView): string | undefined {
  const model = machineOfSource(source, view)?.model;
  if (!model) return undefined;
  const { universes, parameters } = used(source, view);
  const of = (count: number, most: number | null, what: string) =>
    most === null ? `${count} ${what}, no limit known` : `${count} of ${most} ${what}`;
  return `A ${model.maker} ${model.name}: ${of(universes, model.universes, 'universes')}; ${of(parameters, model.parameters, 'parameters')}.`;
}

export const allowance: Check = {
  rule: 'beyond the allowance',
  *find(view): Generator<Finding> {
    for (const source of view.records.source) {
      const known = machineOfSource(source, view);
      const model = known?.model;
      if (!known || !model) continue;
      const about = { rule: this.rule, weight: 'must fix', subjects: [known.machine.id], evidence: [] } as const;
      const { universes, parameters } = used(source, view);
      if (model.universes !== null && universes > model.universes)
        yield {
          ...about,
          sentence: `${source.name} is planned to send ${universes} universes; a ${model.name} sends ${model.universes}.`,
        };
      if (model.parameters !== null && parameters > model.parameters)
        yield {
          ...about,
          sentence: `${source.name} is planned to send ${parameters} parameters; a ${model.name} is allowed ${model.parameters}.`,
        };
    }
  },
  repairs: () => [],
};
