/** A lamp of the plan beside one that answered: whether it can be it, and where they differ. */
import { footprintOf } from '../../rig/fixture';
import type { PatchedLamp } from '../../rig/patch';
import type { FixtureMode, FixtureType } from '../../show/records';
import type { SeenLamp } from './seen';

export interface Difference {
  readonly what: 'address' | 'mode' | 'port' | 'type';
  readonly planned: string;
  readonly seen: string;
}

/** Names are told apart by their letters and digits alone. */
const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Whether it tells of itself that it is of a type. */
export const sameType = ({ type }: { readonly type: FixtureType }, { maker, model }: SeenLamp): boolean =>
  model !== '' && plain(model) === plain(type.name) && (maker === '' || plain(maker) === plain(type.maker));

/** Whether a type has a mode of as many slots as it takes now, or it has one of as many as the lamp is planned with. */
export const couldBe = (patched: PatchedLamp, seen: SeenLamp): boolean =>
  patched.type.modes.some((mode) => footprintOf(mode) === seen.slots) ||
  seen.modes.some(({ slots }) => slots === patched.footprint);

/** Number of the mode that a lamp is planned with, as it counts them itself; undefined if none is that. */
export function modeWanted({ mode, footprint }: PatchedLamp, seen: SeenLamp): number | undefined {
  const named = seen.modes.findIndex(({ name, slots }) => plain(name) === plain(mode.name) && slots === footprint);
  if (named >= 0) return named + 1;
  const fitting = seen.modes.flatMap(({ slots }, i) => (slots === footprint ? [i + 1] : []));
  return fitting.length === 1 ? fitting[0] : undefined;
}

/** The mode of a type that a lamp is in by its own account; undefined if the type has none like it. */
export function modeSeen({ modes }: Pick<FixtureType, 'modes'>, seen: SeenLamp): FixtureMode | undefined {
  const named = plain(seen.modes[seen.mode - 1]?.name ?? '');
  const fitting = modes.filter((mode) => footprintOf(mode) === seen.slots);
  return fitting.find(({ name }) => plain(name) === named) ?? (fitting.length === 1 ? fitting[0] : undefined);
}

export const modeText = ({ modes, mode, slots }: Pick<SeenLamp, 'modes' | 'mode' | 'slots'>): string => {
  const name = modes[mode - 1]?.name ?? `mode ${mode}`;
  return `${name}, ${slots} slots`;
};

/** Where it differs from its plan; `onPort` says whether its port carries the universe that it is patched on. */
export function differencesOf(patched: PatchedLamp, seen: SeenLamp, onPort: boolean, portText: string): Difference[] {
  const { lamp, mode, footprint, type } = patched;
  const found: Difference[] = [];
  if (!sameType(patched, seen) && !couldBe(patched, seen))
    found.push({ what: 'type', planned: `${type.maker} ${type.name}`, seen: `${seen.maker} ${seen.model}`.trim() });
  if (!onPort) found.push({ what: 'port', planned: `universe ${lamp.universe}`, seen: portText });
  if (seen.startAddress !== lamp.channel)
    found.push({ what: 'address', planned: String(lamp.channel), seen: String(seen.startAddress ?? 'none') });
  const wanted = modeWanted(patched, seen);
  if (seen.slots !== footprint || (wanted !== undefined && wanted !== seen.mode))
    found.push({ what: 'mode', planned: `${mode.name}, ${footprint} slots`, seen: modeText(seen) });
  return found;
}
