/** This page's id with the server. */
import { Preference } from './preferences';

const kept = new Preference(sessionStorage, 'client', '');
if (kept.read() === '')
  kept.write(`page-${Array.from(crypto.getRandomValues(new Uint32Array(4)), (word) => word.toString(36)).join('')}`);

/** The same for one tab through all reloads, so that what it took stays its own. */
export const clientId: string = kept.read();
