/** Walking through lamps and slots: what they are set to, one after another. */
export * from './levels';
