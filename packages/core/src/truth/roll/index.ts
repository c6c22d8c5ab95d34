/** Roll call: what hangs on each port is asked, compared with the plan, set and read back. */
export * from './ask';
export * from './seen';
export * from './compare';
export * from './match';
export * from './row';
export * from './roll';
export * from './troubles';
export * from './set';
export * from './arrange';
export * from './takeOver';
export * from './typeOf';
