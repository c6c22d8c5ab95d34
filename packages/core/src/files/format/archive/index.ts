/**
 * ZIP archives with XML inside: fixture types (GDTF) and rigs (MVR). Apart from the other formats,
 * because what reads them is large and no browser needs it.
 */
export { readGdtf, type GdtfContent } from './gdtf';
export { readDmxValue } from './gdtfValue';
export { gdtfName, writeGdtf } from './gdtfOut';
export { nextGround } from './ground';
export { readMvr, type MvrContent } from './mvrIn';
export { writeMvr } from './mvrOut';
export { openZip, makeZip, MOST_FILE_BYTES, type Entries } from './zip';
