/** A part that runs in a thread of its own cannot be asked now; the message says why and until when. */
export class Away extends Error {}
