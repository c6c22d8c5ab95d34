/** Why something does not work: causes as deviations of the world, judged by what was heard, said and seen. */
export * from './why';
export * from './standing';
