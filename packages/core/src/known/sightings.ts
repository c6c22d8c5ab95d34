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

/** `port machine-1 3 light`: what a sighting is about, and the question. */
export const sightingKey = ({ kind, id, part }: Subject, question: string): string =>
  [kind, id, part, question].filter(Boolean).join(' ');

/** The last answer to each question, by {@link sightingKey}. */
export function latestSightings({ sighting }: Pick<ShowRecords, 'sighting'>): Map<string, Sighting> {
  const latest = new Map<string, Sighting>();
  for (const one of sighting) {
    const key = sightingKey(one.about, one.question);
    const before = latest.get(key);
    if (!before || one.rev >= before.rev) latest.set(key, one);
  }
  return latest;
}

/** What was seen, and what of its path changed since. */
export function seenAs({ answer, by, rev, at: text }: Sighting, path: readonly OnPath[]): Seen {
  const at = text === '' ? null : Date.parse(text);
  const changed = path.filter((one) => (one.rev ?? 0) > rev || (one.began ?? 0) > (at ?? 0)).map(({ name }) => name);
  return { answer, by, at, changed: [...new Set(changed)] };
}

/** The latest answer to a question about something; undefined if nobody answered. */
export function seenOf(
  records: Pick<ShowRecords, 'sighting'>,
  about: Subject,
  question: string,
  path: readonly OnPath[],
): Seen | undefined {
  const latest = latestSightings(records).get(sightingKey(about, question));
  return latest && seenAs(latest, path);
}
