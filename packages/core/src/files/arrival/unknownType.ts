/** A type of which a file says the name and not what it is: its lamps are lamps, and wait for it. */
import { PLAIN_TYPE, type FixtureType } from '../../show/records';
import { fitted } from './fitted';

/** The maker of a type of which a file says none */
export const NO_MAKER = 'Unknown maker';

/** A type, and which of its modes a lamp is in */
export interface TypeAndMode {
  readonly type: FixtureType;
  readonly mode: string;
}

interface Called {
  readonly id: string;
  readonly maker: string;
  readonly name: string;
  readonly mode: string;
}

/** `before`: the same with the modes that were asked for so far; the one that is asked for now is added. */
export function unknownType({ id, maker, name, mode }: Called, before: FixtureType | undefined): TypeAndMode {
  const asked = fitted(mode) || 'not said';
  const modes = before?.modes ?? [];
  const type: FixtureType = {
    ...PLAIN_TYPE,
    ...{ id, rev: 0, kind: 'other', unknown: true },
    maker: fitted(maker) || NO_MAKER,
    name: fitted(name) || 'A type without a name',
    modes: modes.some((one) => one.name === asked) ? modes : [...modes, { name: asked, channels: [] }],
  };
  return { type, mode: asked };
}
