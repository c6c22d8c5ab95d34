/** What people saw, and whether it still counts. */
import type { ShowRecords, Sighting, Subject } from '../../show/records';
import { sightingsOfMarks } from './marks';

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

/** What somebody says, or would say, to a question about something. */
export interface Answer {
  readonly about: Subject;
  readonly question: string;
  readonly answer: Sighting['answer'];
}

/** By {@link sightingKey}. */
export type Answers = ReadonlyMap<string, Answer>;

export const answersOf = (all: Iterable<Answer>): Answers =>
  new Map([...all].map((one) => [sightingKey(one.about, one.question), one]));

/** What people of whom an answer is known saw: answers, and marks of walks. */
type Looked = Pick<ShowRecords, 'sighting' | 'mark'>;

const isLater = (a: Sighting, b: Sighting): boolean => a.rev > b.rev || (a.rev === b.rev && a.at >= b.at);

/** The last answer to each question, by {@link sightingKey}. */
export function latestSightings(records: Looked): Map<string, Sighting> {
  const latest = new Map<string, Sighting>();
  for (const one of [...records.sighting, ...sightingsOfMarks(records)]) {
    const key = sightingKey(one.about, one.question);
    const before = latest.get(key);
    if (!before || isLater(one, before)) latest.set(key, one);
  }
  return latest;
}

/** What was seen, and what of its path changed since. */
export function seenAs(
  { answer, by, rev, at: text }: Pick<Sighting, 'answer' | 'by' | 'rev' | 'at'>,
  path: readonly OnPath[],
): Seen {
  const at = text === '' ? null : Date.parse(text);
  const changed = path.filter((one) => (one.rev ?? 0) > rev || (one.began ?? 0) > (at ?? 0)).map(({ name }) => name);
  return { answer, by, at, changed: [...new Set(changed)] };
}

/** The latest answer to a question about something; undefined if nobody answered. */
export function seenOf(records: Looked, about: Subject, question: string, path: readonly OnPath[]): Seen | undefined {
  const latest = latestSightings(records).get(sightingKey(about, question));
  return latest && seenAs(latest, path);
}
