/** Bytes and fixed-width text in packets. */

export * from './bytes';
