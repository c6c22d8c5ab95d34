/** Which planned source a stream is of. */
import type { Source } from '../show';

/** Whether a stream is a source's: by name, or by address. */
export const isSentBy = (stream: { readonly name: string; readonly address: string }, source: Source): boolean =>
  source.name === stream.name || (source.address !== '' && source.address === stream.address);
