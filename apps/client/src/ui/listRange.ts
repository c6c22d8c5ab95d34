/** Pure parts of choosing rows with keyboard and mouse. */

/** The ids between two rows, both included; only the second where the first is not in the list any more. */
export function rangeOf(ids: readonly string[], from: string, to: string): readonly string[] {
  const a = ids.indexOf(from);
  const b = ids.indexOf(to);
  if (b < 0) return [];
  return a < 0 ? [to] : ids.slice(Math.min(a, b), Math.max(a, b) + 1);
}

/** Whether an element takes every key itself, as a text field does. */
export const keysAllTaken = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable);
