/** Art-Net 4: packets to messages and back. */
export * as ArtNet from './constants';
export * from './others';
export * from './poll';
export * from './pollReply';
export * from './subscribers';
export { listedOf, listingPages, nodeReportText, pollMeans } from './listing';
export * from './dmx';
export * from './sync';
export * from './address';
export * from './input';
export * from './ipProg';
export * from './rdm';
export { readOpCode } from './header';
export * from './decode';
