/** Types and modes by what a table calls them. */
import { guidOf, type TypeAndMode, unknownType } from '../../arrival';
import { footprintOf } from '../../../rig/fixture';
import type { FixtureMode, FixtureType, Lamp } from '../../../show/records';

/** What a row says of its type */
type Named = Readonly<Partial<Record<'maker' | 'type' | 'mode', string>>>;

/** Letters and numbers of every script; spaces, signs, capitals and width are no difference. */
const key = (text: string): string =>
  (
    text
      .normalize('NFKC')
      .toLowerCase()
      .match(/[\p{L}\p{M}\p{N}]+/gu) ?? []
  ).join(' ');

/** Finds types and modes by what a table calls them: the very names only; all else waits to be said. */
export class TypesByName {
  /** By name, with and without the maker; those that two share are nobody’s */
  private readonly byName = new Map<string, FixtureType | undefined>();
  private readonly byWhole = new Map<string, TypeAndMode | undefined>();
  readonly used = new Map<string, FixtureType>();

  constructor(private readonly types: readonly FixtureType[]) {
    const put = <T>(map: Map<string, T | undefined>, name: string, one: T, same: (a: T, b: T) => boolean) => {
      if (name === '') return;
      const there = map.get(name);
      map.set(name, !map.has(name) || (there && same(there, one)) ? one : undefined);
    };
    const sameType = (a: FixtureType, b: FixtureType) => a === b;
    for (const type of types) {
      if (type.unknown) continue;
      for (const name of [type.name, `${type.maker} ${type.name}`]) {
        put(this.byName, key(name), type, sameType);
        for (const mode of type.modes)
          put(
            this.byWhole,
            key(`${name} ${mode.name}`),
            { type, mode: mode.name },
            (a, b) => a.type === b.type && a.mode === b.mode,
          );
      }
    }
  }

  private mode(type: FixtureType, text: string): FixtureMode | undefined {
    const wanted = key(text);
    if (wanted === '') return type.modes.length === 1 ? type.modes[0] : undefined;
    const named = type.modes.filter(({ name }) => key(name) === wanted);
    if (named.length === 1) return named[0];
    // “Basic (23 ch)” says the name, and the slots beside it; “23 ch” says the slots.
    const slots = /(\d+) ?(?:ch|chan|channels?|dmx|slots?|kanal|kanale)?$/.exec(wanted);
    const rest = slots ? wanted.slice(0, slots.index).trim() : '';
    const sized = type.modes.filter((one) => footprintOf(one) === Number(slots?.[1]));
    const fits = rest === '' ? sized : sized.filter(({ name }) => key(name) === rest);
    return fits.length === 1 ? fits[0] : undefined;
  }

  /** `there`: the lamp of the show that has the row’s number; of what the row does not say it stays as it is. */
  of({ maker = '', type: said = '', mode = '' }: Named, there: Lamp | undefined): TypeAndMode {
    const own = there && this.types.find(({ id }) => id === there.typeId);
    if (own && there && said.trim() === '' && maker.trim() === '') {
      const kept = { type: own, mode: (mode === '' ? undefined : this.mode(own, mode))?.name ?? there.mode };
      this.used.set(own.id, own);
      return kept;
    }
    const type = this.byName.get(key(`${maker} ${said}`)) ?? (maker === '' ? this.byName.get(key(said)) : undefined);
    const found =
      type && type === own && mode.trim() === ''
        ? type.modes.find(({ name }) => name === there?.mode)
        : type && this.mode(type, mode);
    const whole = mode === '' ? this.byWhole.get(key(`${maker} ${said}`)) : undefined;
    const named = found ? { type: type!, mode: found.name } : whole;
    if (!named) return this.unknown(maker, said, mode);
    this.used.set(named.type.id, named.type);
    return named;
  }

  /** A type of which the table says the name only; its modes are those that are asked for. */
  private unknown(maker: string, said: string, mode: string): TypeAndMode {
    const id = guidOf(`not known ${maker} ${said.trim() || 'A type without a name'}`);
    const made = unknownType({ id, maker, name: said, mode }, this.used.get(id));
    this.used.set(id, made.type);
    return made;
  }
}
