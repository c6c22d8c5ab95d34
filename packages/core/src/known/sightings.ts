/** What people saw, and whether it still counts. */
import type { ShowRecords, Sighting, Subject } from '../records';

/** Something on the path of what was seen: a record, or a device as it is heard. */
export interface OnPath {
  readonly name: string;
  /** Edit that last changed it; absent for a device */
  readonly rev?: number;
  /** Unix time at which it began anew, ms; absent for a record */
  readonly began?: number;
}

export interface Seen {
  readonly answer: Sighting['answer'];
  readonly by: string;
  /** Unix time, ms; null if nobody knows */
  readonly at: number | null;
  /** What on its path changed since; empty while it still counts */
  readonly changed: readonly string[];
}

const isAbout = (one: Subject, other: Subject): boolean =>
  one.kind === other.kind && one.id === other.id && one.part === other.part;

/** The latest answer to a question about something; undefined if nobody answered. */
export function seenOf(
  { sighting }: Pick<ShowRecords, 'sighting'>,
  about: Subject,
  question: string,
  path: readonly OnPath[],
): Seen | undefined {
  let latest: Sighting | undefined;
  for (const one of sighting)
    if (one.question === question && isAbout(one.about, about) && (!latest || one.rev >= latest.rev)) latest = one;
  if (!latest) return undefined;
  const { answer, by, rev } = latest;
  const at = latest.at === '' ? null : Date.parse(latest.at);
  const changed = path.filter((one) => (one.rev ?? 0) > rev || (one.began ?? 0) > (at ?? 0)).map(({ name }) => name);
  return { answer, by, at, changed: [...new Set(changed)] };
}
