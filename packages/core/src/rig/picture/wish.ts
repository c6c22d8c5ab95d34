/** What a person wants shown, checked and made into a program. */
import { wireKey } from '../../base/address';
import type { Patch } from '../patch';
import type { Universe, WalkPicture } from '../../show/records';
import { ok, refuse, type Result } from '../../base/result';
import { lifted, looksOf } from './looks';
import { looksProgram, pictureOfLamps, pictureOfUniverses, type KeyOf, type TestPicture } from './make';
import { universesIn, type Program } from './program';

/** Universes of a picture at full rate: more than this is for a console. */
export const MOST_PICTURED = 100;

export type PictureWish =
  | {
      readonly kind: 'test';
      readonly picture: TestPicture;
      readonly lampIds: readonly string[];
      readonly universes: readonly number[];
    }
  /** One lamp, as a walk shows it: by pictures, or one channel of its mode alone (counted from 1; 0 for none) */
  | {
      readonly kind: 'walk';
      readonly lampId: string;
      readonly pictures: readonly WalkPicture[];
      readonly channel: number;
    };

export function programOf(wish: PictureWish, patch: Patch, universes: readonly Universe[]): Result<Program> {
  const byNumber = new Map(universes.map((one) => [one.number, one]));
  const keyOf: KeyOf = (number) => {
    const universe = byNumber.get(number);
    return universe && wireKey({ protocol: universe.protocol, number: universe.wire });
  };
  const program = wish.kind === 'walk' ? walked(wish, patch, keyOf) : tested(wish, patch, keyOf);
  if (!program.ok) return program;
  if (program.value.tracks.length === 0)
    return refuse('nothing', 'Nothing of this is in a universe of the show, so it cannot be lit.');
  const count = universesIn(program.value).size;
  if (count > MOST_PICTURED)
    return refuse(
      'not-possible',
      `This would be ${count} universes at once; a picture is sent on at most ${MOST_PICTURED}. Choose fewer.`,
    );
  return program;
}

function walked(
  { lampId, pictures, channel }: Extract<PictureWish, { kind: 'walk' }>,
  patch: Patch,
  keyOf: KeyOf,
): Result<Program> {
  const patched = patch.lamp(lampId);
  if (!patched) return refuse('not-found', 'This lamp is not in the show any more.');
  if (channel === 0) return ok(looksProgram(patched, looksOf(patched, pictures), keyOf));
  if (channel > patched.mode.channels.length)
    return refuse('not-found', `${patched.lamp.name} has no channel ${channel} in its mode.`);
  return ok(looksProgram(patched, [{ says: '', values: lifted(patched, channel - 1) }], keyOf));
}

function tested(
  { picture, lampIds, universes }: Extract<PictureWish, { kind: 'test' }>,
  patch: Patch,
  keyOf: KeyOf,
): Result<Program> {
  const lamps = lampIds.flatMap((id) => patch.lamp(id) ?? []);
  if (universes.length === 0) return ok(pictureOfLamps(picture, lamps, keyOf));
  if (lamps.length > 0) return refuse('not-possible', 'Choose lamps or universes, not both.');
  const keys = universes.map((number) => ({ number, key: keyOf(number) }));
  const unknown = keys.find(({ key }) => key === undefined);
  if (unknown) return refuse('not-found', `Universe ${unknown.number} is not in the show, so it cannot be lit.`);
  return ok(pictureOfUniverses(picture, keys as { number: number; key: number }[]));
}
