/** The one question whose answer tells most, where several causes predict the same. */
import type { Answer } from '../known';
import type { Scene } from './scene';
import type { Suspect } from './judge';

/** Causes less likely than this part of the likeliest are not asked about. */
const WORTH = 0.03;
/** An answer that one cause alone predicts should at least be so likely either way. */
const TELLS = 0.08;

export type Asked = Pick<Answer, 'about' | 'question'>;

/** What to ask, and of what; undefined if no question tells them apart. */
export function bestQuestion(suspects: readonly Suspect[], { seen }: Scene): Asked | undefined {
  const [first] = suspects;
  if (!first) return undefined;
  const close = suspects.filter(({ share }) => share >= first.share * WORTH);
  if (close.length < 2) return undefined;
  const asked = new Map<string, Asked>(close.flatMap(({ answers }) => [...answers]));
  const all = close.reduce((sum, { share }) => sum + share, 0);
  let best: { one: Asked; tells: number } | undefined;
  for (const [key, one] of asked) {
    if (seen.answers.has(key)) continue;
    const yes =
      close.reduce((sum, { answers, share }) => sum + (answers.get(key)?.answer === 'yes' ? share : 0), 0) / all;
    const tells = Math.min(yes, 1 - yes);
    if (tells >= TELLS && (!best || tells > best.tells)) best = { one, tells };
  }
  return best?.one;
}
