/** A thread's sign of life: a number in shared memory that rises while its event loop turns. */

const EVERY_MS = 200;

export const newBeat = (): SharedArrayBuffer => new SharedArrayBuffer(4);

/** Called once in the thread itself. Long work that is no fault says {@link alive} as it goes. */
export function keepBeating(memory: SharedArrayBuffer): void {
  setInterval(() => alive(memory), EVERY_MS).unref();
}

export const alive = (memory: SharedArrayBuffer): void => void Atomics.add(new Int32Array(memory), 0, 1);

export const readBeat = (memory: SharedArrayBuffer): number => Atomics.load(new Int32Array(memory), 0);
