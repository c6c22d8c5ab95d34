/** Time that passes only when it is let: every timer, date and stopwatch of the programs runs by it. */
import { install, type Clock } from '@sinonjs/fake-timers';

const turn = setImmediate;
const FAKED = ['setTimeout', 'clearTimeout', 'setInterval', 'clearInterval', 'setImmediate', 'clearImmediate', 'Date'];
const EPOCH = Date.UTC(2026, 11, 1, 20);

let clock: Clock | undefined;

export function startClock(): void {
  clock ??= install({ now: EPOCH, toFake: [...FAKED, 'performance'] as never });
}

/** Lets what waits for no time happen. */
const settle = (): Promise<void> => new Promise((done) => turn(done));

/** Lets so many milliseconds pass, one by one, and what happens in them. */
export async function pass(ms: number): Promise<void> {
  for (let i = 0; i < ms; i += 1) {
    clock!.tick(1);
    await settle();
  }
}

/** What waits for no time is done after so many turns. */
const TURNS = 12;

/** What is promised: at once if it waits for nothing, else while time passes. */
export async function meanwhile<T>(work: Promise<T>): Promise<T> {
  let over = false;
  const end = () => (over = true);
  work.then(end, end);
  for (let i = 0; i < TURNS && !over; i += 1) await settle();
  while (!over) await pass(1);
  return work;
}
