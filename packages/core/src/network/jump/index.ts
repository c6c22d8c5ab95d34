/** Jump: one box for everything. */

export * from './jump';
