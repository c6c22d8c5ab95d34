/** Keyboard and mouse in a list of rows: arrows, Space, Ctrl+A, Escape, and Shift-click for a range. */
import { useEffect, useRef, type CSSProperties, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';
import { keysAllTaken, rangeOf } from './listRange';

const FILLS: CSSProperties = { flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' };
const ROW = '[data-row]';

interface Props {
  /** Ids of all rows that can be chosen, in the order on screen */
  ids: () => readonly string[];
  chosen: readonly string[];
  onChoose: (ids: readonly string[]) => void;
  /** Begins choosing, where rows otherwise lead to a page */
  onBegin?: () => void;
  /** Ends choosing (Escape) */
  onEnd?: () => void;
  children: ReactNode;
}

const rowOf = (target: EventTarget): HTMLElement | null => (target as HTMLElement).closest<HTMLElement>(ROW);

/** Moves the focus to the next row in the document, before or after. */
function step(row: HTMLElement, by: 1 | -1): void {
  const rows = [...row.closest('[data-list]')!.querySelectorAll<HTMLElement>(ROW)];
  const next = rows[rows.indexOf(row) + by];
  next?.querySelector<HTMLElement>('a, [role="checkbox"], [tabindex="0"]')?.focus();
}

/** Each row inside carries its id as `data-row`. */
export function ListKeys({ ids, chosen, onChoose, onBegin, onEnd, children }: Props) {
  const anchor = useRef<string>(undefined);

  const choose = (next: readonly string[]) => {
    onBegin?.();
    onChoose(next);
  };
  const all = useRef(() => choose(ids()));
  all.current = () => choose(ids());
  useEffect(() => {
    // Nothing on the page has the focus: the list is meant.
    const onKey = (event: globalThis.KeyboardEvent) => {
      const isAll = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a';
      if (!isAll || event.defaultPrevented || event.target !== document.body) return;
      event.preventDefault();
      all.current();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  const onClick = (event: MouseEvent) => {
    const id = rowOf(event.target)?.dataset['row'];
    if (id === undefined) return;
    if (!event.shiftKey) {
      anchor.current = id;
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    getSelection()?.removeAllRanges();
    choose([...chosen, ...rangeOf(ids(), anchor.current ?? id, id)]);
    anchor.current = id;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const row = rowOf(event.target);
    if (!row || keysAllTaken(event.target)) return;
    const id = row.dataset['row']!;
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') step(row, event.key === 'ArrowDown' ? 1 : -1);
    else if (event.key === ' ') {
      choose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
      anchor.current = id;
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') choose(ids());
    else if (event.key === 'Escape' && onEnd) onEnd();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div data-list style={FILLS} onClickCapture={onClick} onKeyDownCapture={onKeyDown}>
      {children}
    </div>
  );
}
