/** Whether the visualiser has the lamps as the plan has them, where it says so itself. */
import { fine, wrong, type Case, type DoctorLine } from './doctorLine';
import { addressesOf } from '../ip';

/** What another program said of its patch, held against the plan. */
export interface PatchSaid {
  readonly name: string;
  readonly address: string;
  /** Lamps in its patch */
  readonly lamps: number;
  /** Its patch came to its end */
  readonly whole: boolean;
  /** When it said it, ms */
  readonly patchAt: number;
  /** Numbers of lamps that lie elsewhere there, take another count of channels, or are on one side only */
  readonly differ: readonly number[];
}

const FIRST = 6;

/** The line; undefined where it has said nothing of its patch. */
export function sameLamps({ visualiser }: Case, said: readonly PatchSaid[]): DoctorLine | undefined {
  const its = new Set(addressesOf(visualiser).map(({ text }) => text));
  const one = said.find((other) => other.whole && (its.has(other.address) || other.name === visualiser.name));
  if (!one) return undefined;
  const title = 'The same lamps on both sides';
  if (one.differ.length === 0)
    return fine('lamps', title, `${one.name} says that its ${one.lamps} lamps lie as planned.`, 'said');
  const named = one.differ.slice(0, FIRST).join(', ') + (one.differ.length > FIRST ? ' and more' : '');
  return wrong(
    'lamps',
    title,
    `${one.name} says otherwise of ${one.differ.length} ${one.differ.length === 1 ? 'lamp' : 'lamps'}: ${named}.`,
    'Compare them, and take over what is right on one side or the other.',
    'said',
  );
}
