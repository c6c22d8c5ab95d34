/** What a process did with the processor: a busy computer is told from a program that hangs. */
import { readFileSync } from 'node:fs';

export interface ProcessLoad {
  /** Processor time of its main thread, milliseconds */
  readonly used: number;
  /** It could go on and waits for a processor. */
  readonly waits: boolean;
}

/** Linux counts in hundredths of a second (proc(5), USER_HZ). */
const TICK_MS = 10;

/** Undefined where the system doesn't tell, or for a process that is gone. */
export function processLoad(pid: number): ProcessLoad | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/task/${pid}/stat`, 'utf8');
    // The name in brackets may hold anything; fields are counted from behind it: state, …, utime, stime.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    const used = (Number(fields[11]) + Number(fields[12])) * TICK_MS;
    return Number.isFinite(used) ? { used, waits: fields[0] === 'R' } : undefined;
  } catch {
    return undefined;
  }
}
