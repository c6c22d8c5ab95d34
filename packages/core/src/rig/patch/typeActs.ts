/** Making and changing fixture types, with what that does to the lamps that are patched. */
import { ok, refuse, type Result } from '../../base/result';
import { blocksOf, footprintOf, modeFault } from '../fixture';
import type { FixtureMode, FixtureType, ShowRecords } from '../../show/records';
import { lampName } from './lamps';
import { Occupancy, placesOf } from './occupancy';
import type { Rig } from './rig';
import { someLamps } from './someLamps';
import { added, changed, countOf, type Plan, type PlanLine, removed } from '../../show/edit';
import equal from 'fast-deep-equal';

const typeName = ({ maker, name }: FixtureType): string => `${maker} ${name}`;

function typeFault(after: FixtureType, { type }: ShowRecords): string | undefined {
  const before = type.find(({ id }) => id === after.id);
  if (after.maker.trim() === '' || after.name.trim() === '') return 'A type needs a maker and a name.';
  if (after.modes.length === 0) return 'A type needs a mode.';
  const names = after.modes.map(({ name }) => name);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) return `Two modes are called “${twice}”.`;
  const same = type.find((one) => one.id !== after.id && typeName(one) === typeName(after));
  // Two of one name may have come in from elsewhere; nobody makes a second here.
  if (same && (!before || typeName(before) !== typeName(after))) return `${typeName(after)} is in the show already.`;
  for (const mode of after.modes) {
    const fault = modeFault(mode);
    if (fault) return fault;
  }
  return undefined;
}

const words = (mode: FixtureMode): string => `${mode.name}, ${countOf(footprintOf(mode), 'channel')}`;

/**
 * Writes a type anew. `renamed` says what modes were called before; lamps follow. A mode that lamps
 * use cannot go; lamps whose channels change are named, and get places for address blocks that they lack.
 */
export function changeType(rig: Rig, after: FixtureType, renamed: ReadonlyMap<string, string>): Result<Plan> {
  const fault = typeFault(after, rig.records);
  if (fault !== undefined) return refuse('not-possible', fault);
  const before = rig.records.type.find(({ id }) => id === after.id);
  const line = (was: string): PlanLine => ({
    subject: typeName(after),
    before: was,
    after: after.modes.map(words).join('; '),
  });
  if (!before)
    return ok({ sentence: `Made the type ${typeName(after)}`, changes: [added('type', after)], lines: [line('')] });
  const lamps = rig.records.lamp.filter(({ typeId }) => typeId === after.id);
  const newName = (mode: string) => renamed.get(mode) ?? mode;
  for (const mode of before.modes) {
    const users = lamps.filter((lamp) => lamp.mode === mode.name);
    if (users.length > 0 && !after.modes.some(({ name }) => name === newName(mode.name)))
      return refuse('not-possible', `Mode “${mode.name}” is used by ${someLamps(users)}. Change their mode first.`);
  }
  const occupancy = new Occupancy(rig.patch);
  const changes: Plan['changes'][number][] = [];
  const lines: PlanLine[] = [];
  for (const lamp of lamps) {
    const was = before.modes.find(({ name }) => name === lamp.mode);
    const is = after.modes.find(({ name }) => name === newName(lamp.mode))!;
    if (was && equal(was, is)) continue;
    const lengths = blocksOf(is);
    const found = placesOf(occupancy, lamp, lengths);
    if (!found.ok) return found;
    const blocks = found.value.slice(1);
    if (lamp.mode !== is.name || !equal(blocks, lamp.blocks))
      changes.push(changed('lamp', lamp, { ...lamp, mode: is.name, blocks }));
    lines.push({ subject: lampName(lamp), before: was ? words(was) : lamp.mode, after: words(is) });
  }
  if (equal({ ...before, rev: 0 }, { ...after, rev: 0 })) return refuse('nothing', 'Nothing has been changed yet.');
  return ok({
    sentence: `Changed the type ${typeName(after)}${lines.length > 0 ? `, which ${countOf(lines.length, 'lamp')} ${lines.length === 1 ? 'is' : 'are'}` : ''}`,
    changes: [changed('type', before, after), ...changes],
    lines: [line(before.modes.map(words).join('; ')), ...lines],
  });
}

export function removeType(rig: Rig, type: FixtureType): Result<Plan> {
  const users = rig.records.lamp.filter(({ typeId }) => typeId === type.id);
  if (users.length > 0) return refuse('not-possible', `${typeName(type)} is used by ${someLamps(users)}.`);
  return ok({
    sentence: `Removed the type ${typeName(type)}`,
    changes: [removed('type', type)],
    lines: [{ subject: typeName(type), before: type.modes.map(words).join('; '), after: '' }],
  });
}
