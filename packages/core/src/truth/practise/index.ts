/** Practising on the stand-ins: nights with faults drawn by number, what is found, and marks. */
export * from './night';
export * from './practice';
export * from './reports';
