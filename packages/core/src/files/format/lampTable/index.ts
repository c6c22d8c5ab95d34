/** Tables of lamps as people have them: found within their sheet, their columns understood, each row a lamp. */
export * from './heads';
export { UNITS, type LengthUnit } from './lengths';
export { COMMAS, QUESTIONS, type Comma, type Question } from './questions';
export * from './read';
export * from './sheet';
