/** Answers of people who looked. */
import { added } from '@taxiarch/core/show/edit';
import type { Sighting, Subject } from '@taxiarch/core/show/records';
import { newId } from './numbers';
import { whoIsHere } from './person';
import { propose } from './show';

/** Writes down what a person saw; `what` names it for the history. Rejects with a Refusal whose message can be shown. */
export async function saw(about: Subject, question: string, answer: Sighting['answer'], what: string): Promise<void> {
  const by = await whoIsHere();
  const at = new Date().toISOString();
  await propose(`Looked: ${what}, ${answer}`, [
    added('sighting', { id: newId(), rev: 0, about, question, answer, by, at }),
  ]);
}
