/** A lamp’s attributes as the levels of its slots. */
export * from './levels';
