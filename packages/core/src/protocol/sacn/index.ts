/** sACN, ANSI E1.31-2018: packets to messages and back. */
export * as Sacn from './constants';
export { blankDataFields, dataUniverse, encodeData, readDataFields, readSourceName, type SacnData } from './data';
export { encodeSync, type SacnSync } from './sync';
export { encodeDiscovery, encodeDiscoveryPages, type SacnDiscovery } from './discovery';
export { formatCid, parseCid, readRoot, type SacnRejection } from './root';
export * from './decode';
