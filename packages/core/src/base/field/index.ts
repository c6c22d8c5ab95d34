/** Fields: what a part of a record, a request or a report is, said once. */
export * from './field';
export * from './given';
