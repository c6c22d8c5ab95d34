/** Which planned sender a stream is of. */
import type { Sender } from './senders';

/** Whether a stream is a sender's: by name, or by address. */
export const isSentBy = (stream: { readonly name: string; readonly address: string }, sender: Sender): boolean =>
  sender.name === stream.name || sender.addresses.includes(stream.address);
