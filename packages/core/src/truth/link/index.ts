/** Senders linked to visualisers: which universe arrives as which, and what stands in the way. */
export * from './doctor';
export * from './linked';
export type { LinkHeard } from './doctorLine';
