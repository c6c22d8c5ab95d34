/** sACN, ANSI E1.31-2018: packets to messages and back. */
export * as Sacn from './constants';
export * from './data';
export * from './sync';
export * from './discovery';
export { formatCid, parseCid, readRoot } from './root';
export * from './decode';
