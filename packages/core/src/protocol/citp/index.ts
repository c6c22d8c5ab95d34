/** CITP: programs that tell each other their patch and what is selected in them. */
export * as Citp from './constants';
export * from './message';
export * from './peer';
