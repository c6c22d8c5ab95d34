import type { Loose, Step } from './step';

const SINCE: Readonly<Record<string, Loose>> = { model: { speed: 100 }, link: { startsFirst: 'sender' } };

/** A model says how fast its connector is, a link which of its two starts first. */
export const to5: Step = { to: 5, record: (kind, record) => ({ ...SINCE[kind], ...record }) };
