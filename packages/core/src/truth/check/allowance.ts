/** A sender that is planned to send more universes or parameters than its model is allowed. */
import { countOf } from '../../show/edit';
import { footprintOf } from '../../rig/fixture';
import { universesOf, type Sender } from '../../network/flow';
import type { Check, Finding, NetworkView } from './finding';

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

function used(sender: Sender, view: NetworkView) {
  const universes = universesOf(sender);
  const by = parametersByUniverse(view);
  return {
    universes: universes.length,
    parameters: universes.reduce((sum, universe) => sum + (by.get(universe) ?? 0), 0),
  };
}

/** What a sender would use of what its model allows, in words; undefined if no model is known. */
export function allowanceText(sender: Sender, view: NetworkView): string | undefined {
  const model = view.byId.get(sender.id)?.model;
  if (!model) return undefined;
  const { universes, parameters } = used(sender, view);
  const of = (count: number, most: number | null, what: string) =>
    most === null ? `${count} ${what}, no limit known` : `${count} of ${most} ${what}`;
  return `A ${model.maker} ${model.name}: ${of(universes, model.universes, 'universes')}; ${of(parameters, model.parameters, 'parameters')}.`;
}

export const allowance: Check = {
  rule: 'beyond the allowance',
  *find(view): Generator<Finding> {
    for (const sender of view.senders) {
      const model = view.byId.get(sender.id)?.model;
      if (!model) continue;
      const about = { rule: this.rule, weight: 'must fix', subjects: [sender.id], evidence: [] } as const;
      const { universes, parameters } = used(sender, view);
      if (model.universes !== null && universes > model.universes)
        yield {
          ...about,
          sentence: `${sender.name} is planned to send ${countOf(universes, 'universe')}; a ${model.name} sends ${model.universes}.`,
        };
      if (model.parameters !== null && parameters > model.parameters)
        yield {
          ...about,
          sentence: `${sender.name} is planned to send ${parameters} parameters; a ${model.name} is allowed ${model.parameters}.`,
        };
    }
  },
  repairs: () => [],
};
