/** A fixture type made from what a lamp tells of the mode that it is in. */
import { lightsWith } from '../../rig/fixture';
import { attributeOfSlot, SLOT_PRIMARY } from '../../protocol/rdm';
import { PLAIN_TYPE, type FixtureChannel, type FixtureType } from '../../show/records';
import type { SeenLamp } from './seen';

/** One slot as it tells it (ANSI E1.20-2010, 10.6.4–10.6.6) */
export interface ToldSlot {
  /** From 0 */
  readonly slot: number;
  readonly type: number;
  readonly label: number;
  readonly name: string;
  readonly default: number;
}

/** Words of a slot’s own name that say what it is, where its number does not */
const NAMED: readonly (readonly [RegExp, string])[] = [
  [/^(dim|int)/i, 'Dimmer'],
  [/^red/i, 'ColorAdd_R'],
  [/^green/i, 'ColorAdd_G'],
  [/^blue/i, 'ColorAdd_B'],
  [/^white/i, 'ColorAdd_W'],
  [/^amber/i, 'ColorAdd_RY'],
  [/^(uv|ultra)/i, 'ColorAdd_UV'],
  [/^strobe/i, 'Shutter1Strobe'],
  [/^shut/i, 'Shutter1'],
  [/^pan/i, 'Pan'],
  [/^tilt/i, 'Tilt'],
  [/^zoom/i, 'Zoom'],
];
const CELL = /(\d+)$/;

const attributeOf = ({ label, name }: ToldSlot): string =>
  attributeOfSlot(label) ?? NAMED.find(([word]) => word.test(name))?.[1] ?? 'Control1';

/** `id` of the new type. Only the mode that the lamp is in tells its slots; the others are not known. */
export function typeFrom(seen: SeenLamp, slots: readonly ToldSlot[], id: string): FixtureType {
  const channels: FixtureChannel[] = [];
  const primaries = slots.filter(({ type }) => type === SLOT_PRIMARY);
  for (const primary of primaries) {
    const attribute = attributeOf(primary);
    const fine = slots.filter((one) => one.type !== SLOT_PRIMARY && one.label === primary.slot).slice(0, 2);
    const offsets = [primary, ...fine].map(({ slot }) => slot + 1);
    const value = [primary, ...fine].reduce((sum, one) => sum * 256 + one.default, 0);
    const cell = CELL.exec(primary.name)?.[1];
    const same = primaries.filter((one) => attributeOf(one) === attribute).length > 1;
    channels.push({
      attribute,
      offsets,
      default: value,
      highlight: lightsWith(attribute) || attribute === 'Shutter1' ? 256 ** offsets.length - 1 : value,
      ...(same && cell !== undefined && { cell: Number(cell) }),
    });
  }
  return {
    ...PLAIN_TYPE,
    id,
    rev: 0,
    maker: seen.maker || 'Unknown maker',
    name: seen.model || seen.uid,
    kind: 'other',
    answers: 'yes',
    modes: [{ name: seen.modes[seen.mode - 1]?.name ?? `Mode ${seen.mode}`, channels }],
  };
}
