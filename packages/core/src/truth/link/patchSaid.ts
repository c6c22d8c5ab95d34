/** Whether the visualiser has the lamps as the plan has them, where it says so itself. */
import { fine, wrong, type Case, type DoctorLine } from './doctorLine';
import { addressesOf } from '../../network/ip';
import { universesOfLamp } from '../../rig/patch';

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

/** The line; undefined where it has said nothing of its patch, or the link carries no lamps. */
export function sameLamps({ link, records, visualiser }: Case, said: readonly PatchSaid[]): DoctorLine | undefined {
  const own = new Set(addressesOf(visualiser).map(({ text }) => text));
  const one = said.find((other) => other.whole && (own.has(other.address) || other.name === visualiser.name));
  if (!one) return undefined;
  const carried = (universe: number) =>
    link.lines.some(({ from, count }) => universe >= from && universe < from + count);
  const here = records.lamp.filter((lamp) => universesOfLamp(lamp).some(carried)).map(({ number }) => number);
  if (here.length === 0) return undefined;
  const title = 'The same lamps on both sides';
  // Of lamps that the show does not have nobody knows here on which link they would be.
  const its = new Set(here);
  const differ = one.differ.filter((number) => its.has(number));
  if (differ.length === 0)
    return fine('lamps', title, `${one.name} says that the ${here.length} lamps of this link lie as planned.`, 'said');
  const named = differ.slice(0, FIRST).join(', ') + (differ.length > FIRST ? ' and more' : '');
  return wrong(
    'lamps',
    title,
    `${one.name} says otherwise of ${differ.length} ${differ.length === 1 ? 'lamp' : 'lamps'}: ${named}.`,
    'Compare them, and take over what is right on one side or the other.',
    'said',
  );
}
