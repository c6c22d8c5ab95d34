/** What if: failures in time, played on the world that simulation and stand-ins share. */
export * from './event';
export * from './base';
export * from './run';
export * from './single';
export * from './mend';
