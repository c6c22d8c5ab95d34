/** Tables of lamps as people have them: found within their sheet, their columns understood, each row a lamp. */
export * from './heads';
export * from './read';
export * from './sheet';
