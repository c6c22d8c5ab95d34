/** The one shape in which everything says whether it worked. */
export * from './result';
