/** What people marked in walks, as answers to questions about lamps. */
import type { Mark, Sighting, ShowRecords } from '../../show/records';

const answersOf = ({ result, why }: Mark): readonly (readonly [question: string, answer: Sighting['answer']])[] => {
  if (result === 'skipped') return [];
  if (result === 'proved')
    return [
      ['lit', 'yes'],
      ['right', 'yes'],
    ];
  // Which of two lamps shone is no word on whether this one did.
  if (why === 'dark')
    return [
      ['lit', 'no'],
      ['right', 'no'],
    ];
  return why === 'wrong lamp' || why === 'other' || why === ''
    ? [['right', 'no']]
    : [
        ['lit', 'yes'],
        ['right', 'no'],
      ];
};

/** Marks of whole lamps; what was edited after their devices knew counts as later. */
export const sightingsOfMarks = ({ mark }: Pick<ShowRecords, 'mark'>): Sighting[] =>
  mark
    .filter(({ channel }) => channel === 0)
    .flatMap((one) =>
      answersOf(one).map(([question, answer]) => ({
        id: `${one.id} ${question}`,
        rev: one.knew,
        about: { kind: 'lamp' as const, id: one.lampId, part: '' },
        question,
        answer,
        by: one.by,
        at: one.at,
      })),
    );
