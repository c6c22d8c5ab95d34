/** Matching lamps by eye, over HTTP. */
import type { Matching } from '../eye/matching';
import type { Handlers } from './api';

type EyeHandlers = Pick<Handlers, 'readEye' | 'beginEye' | 'answerEye' | 'backEye' | 'endEye'>;

export const eyeHandlers = (matching: Matching): EyeHandlers => ({
  readEye: () => matching.look(),
  beginEye: ({ body }) => matching.begin(body),
  answerEye: ({ body }) => matching.answer(body),
  backEye: () => matching.back(),
  endEye: () => matching.end(),
});
