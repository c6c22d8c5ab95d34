/** Where pages were scrolled to, kept for the tab, so that a list comes back as it was left. */
import { useEffect, useRef, type RefObject } from 'react';

const STORED = 'scrolled';
/** A list that fills late is given this long to reach its place, ms. */
const PATIENCE_MS = 3000;

/** Pages whose offsets are kept; those left longest ago are forgotten first. */
const MOST_PAGES = 200;

/** By page address and place of the scrolled element in the page */
type Offsets = Record<string, Record<string, number>>;

const stored = sessionStorage.getItem(STORED);
const offsets: Offsets = stored === null ? {} : (JSON.parse(stored) as Offsets);
addEventListener('pagehide', () => sessionStorage.setItem(STORED, JSON.stringify(offsets)));

/** True after Back, Forward or a reload, until the next press; a link that is pressed opens its page at the top. */
let returning = performance
  .getEntriesByType('navigation')
  .some((entry) => (entry as PerformanceNavigationTiming).type !== 'navigate');
addEventListener('popstate', () => (returning = true));
for (const press of ['pointerdown', 'keydown']) addEventListener(press, () => (returning = false), { capture: true });

/** Where an element stands below `root`, as child numbers: `0.2.1`. */
function placeOf(element: Element, root: Element): string {
  const steps: number[] = [];
  for (let at = element; at !== root && at.parentElement; at = at.parentElement)
    steps.unshift([...at.parentElement.children].indexOf(at));
  return steps.join('.');
}

const elementAt = (place: string, root: Element): Element | undefined =>
  place === '' ? root : place.split('.').reduce<Element | undefined>((at, step) => at?.children[Number(step)], root);

function keep(address: string, place: string, top: number): void {
  const its = { ...offsets[address], [place]: top };
  // Written last, it is forgotten last.
  delete offsets[address];
  offsets[address] = its;
  for (const oldest of Object.keys(offsets).slice(0, -MOST_PAGES)) delete offsets[oldest];
}

/** Scrolls back to the kept offsets, again and again while content is still coming. Returns what ends it. */
function restore(root: Element, kept: Readonly<Record<string, number>>): () => void {
  const until = performance.now() + PATIENCE_MS;
  let frame = 0;
  const step = () => {
    const open = Object.entries(kept).filter(([place, top]) => {
      const element = elementAt(place, root);
      if (element) element.scrollTop = top;
      return !element || Math.abs(element.scrollTop - top) > 1;
    });
    if (open.length > 0 && performance.now() < until) frame = requestAnimationFrame(step);
  };
  step();
  const end = () => cancelAnimationFrame(frame);
  for (const event of ['wheel', 'touchstart', 'keydown', 'pointerdown'])
    root.addEventListener(event, end, { once: true, passive: true });
  return end;
}

/**
 * Keeps the offsets of all that scrolls in the page at `address`. They are restored when the person comes back to it,
 * and always where `always` (lists).
 */
export function useScrollMemory(address: string, always: boolean): RefObject<HTMLDivElement | null> {
  const root = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = root.current;
    if (!element) return;
    const kept = offsets[address];
    const end = kept && (returning || always) ? restore(element, { ...kept }) : undefined;
    const note = ({ target }: Event) => {
      if (target instanceof Element && target.clientHeight > 0)
        keep(address, placeOf(target, element), target.scrollTop);
    };
    element.addEventListener('scroll', note, { capture: true, passive: true });
    return () => {
      end?.();
      element.removeEventListener('scroll', note, { capture: true });
    };
  }, [address, always]);
  return root;
}
