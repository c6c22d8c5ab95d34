/** For tests of the supervision: a thread throws, or hangs for good. */
export function breakNow(how: 'throw' | 'hang'): void {
  if (how === 'throw') throw new Error('broken on purpose');
  for (;;);
}
