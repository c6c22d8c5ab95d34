/**
 * ZIP archives with XML inside: fixture types (GDTF) and rigs (MVR). Apart from the other formats,
 * because what reads them is large and no browser needs it.
 */
export { readDmxValue, readGdtf } from './gdtf';
export * from './gdtfOut';
export * from './guid';
export * from './mvr';
export { openZip, makeZip, MOST_FILE_BYTES } from './zip';
