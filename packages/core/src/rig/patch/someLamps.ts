/** Lamps in a sentence. */
import type { Lamp } from '../../show/records';

/** “lamps 101, 102 and 18 more” */
export function someLamps(lamps: readonly Pick<Lamp, 'number'>[]): string {
  const numbers = lamps.map(({ number }) => number).sort((a, b) => a - b);
  const said = numbers.slice(0, 3).join(', ');
  return `${numbers.length === 1 ? 'lamp' : 'lamps'} ${said}${numbers.length > 3 ? ` and ${numbers.length - 3} more` : ''}`;
}
