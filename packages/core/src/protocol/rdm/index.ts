/** RDM: packets, answers and parameters of lamps that can be asked (ANSI E1.20-2010, ANSI E1.37-1). */
export * as Rdm from './constants';
export * from './uid';
export * from './packet';
export * from './response';
export * from './device';
export * from './setup';
export * from './sensors';
export * from './parameters';
export * from './status';
export * from './catalogue';
export * from './slotLabels';
export * from './responder';
export * from './line';
