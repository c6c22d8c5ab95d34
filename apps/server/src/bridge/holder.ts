import { createHash } from 'node:crypto';

/** By this everybody may know who holds what. A client's own id stays between it and the server: whoever has it can act as that client. */
export const holderOf = (client: string): string => createHash('sha256').update(client).digest('hex').slice(0, 16);
