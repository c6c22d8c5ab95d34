/// <reference lib="dom.iterable" />
/** What must be true of a page after every step. Runs in the page: measured by boxes, as a person would see it. */

/** Faults of the page as it stands now, each a sentence; none if all is well. */
export function faultsOfPage(): string[] {
  const faults: string[] = [];
  const shown = (element: Element): boolean => {
    const box = element.getBoundingClientRect();
    if (box.width < 1 || box.height < 1) return false;
    return element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  };
  /** The part of an element that its scrolling and cutting ancestors leave in sight */
  const inSight = (element: Element): DOMRect | undefined => {
    const box = element.getBoundingClientRect();
    let [left, top, right, bottom] = [box.left, box.top, box.right, box.bottom];
    for (let at = element.parentElement; at; at = at.parentElement) {
      const { overflowX, overflowY } = getComputedStyle(at);
      if (overflowX === 'visible' && overflowY === 'visible') continue;
      const cut = at.getBoundingClientRect();
      [left, top] = [Math.max(left, cut.left), Math.max(top, cut.top)];
      [right, bottom] = [Math.min(right, cut.right), Math.min(bottom, cut.bottom)];
    }
    [left, top, right, bottom] = [
      Math.max(left, 0),
      Math.max(top, 0),
      Math.min(right, innerWidth),
      Math.min(bottom, innerHeight),
    ];
    return right - left < 2 || bottom - top < 2 ? undefined : new DOMRect(left, top, right - left, bottom - top);
  };
  const name = (element: Element): string =>
    (element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 60) || element.tagName;

  const mains = [...document.querySelectorAll('main, [role=main]')].filter(shown);
  if (mains.length !== 1) faults.push(`${mains.length} main regions are shown`);

  const root = document.scrollingElement!;
  if (root.scrollWidth > innerWidth + 1)
    faults.push(`the page scrolls sideways: ${root.scrollWidth} of ${innerWidth} px`);

  // Where a dialog is open, it is what a person has before them.
  const dialog = [...document.querySelectorAll('[role=dialog]')].filter(shown).at(-1);
  const controls = [
    ...(dialog ?? document).querySelectorAll(
      'a[href], button, [role=button], [role=radio], [role=checkbox], [role=switch], input, select, textarea',
    ),
  ].filter((one) => shown(one) && !one.closest('[aria-hidden=true]'));
  for (const control of controls) {
    const box = inSight(control);
    if (!box) continue;
    const whole = control.getBoundingClientRect();
    const sideways = (at: Element | null): boolean =>
      at !== null &&
      (/auto|scroll/.test(getComputedStyle(at).overflowX)
        ? at.scrollWidth > at.clientWidth
        : sideways(at.parentElement));
    if (
      (whole.right > innerWidth + 1 || whole.left < -1) &&
      !sideways(control.parentElement) &&
      !control.closest('svg')
    )
      faults.push(`“${name(control)}” is cut off at the side`);
    // Drawings place their parts freely.
    if (control.closest('svg, [data-drawing]')) continue;
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const top = document.elementFromPoint(x, y);
    if (top && !control.contains(top) && !top.contains(control)) {
      const over = top.closest('a[href], button, [role=button], [role=radio], [role=dialog]');
      if (over && over !== control && !over.contains(control)) faults.push(`“${name(over)}” covers “${name(control)}”`);
    }
  }
  return faults;
}

/** True while the main region shows nothing at all, not even the shape of what is coming. */
export function isBlank(): boolean {
  const main = [...document.querySelectorAll('main, [role=main]')].find((one) => one.checkVisibility());
  if (!main) return true;
  const shows = (element: Element): boolean =>
    element.checkVisibility({ visibilityProperty: true }) &&
    (element.matches('[role=status], canvas, svg, input, img') ||
      [...element.childNodes].some((one) => one.nodeType === Node.TEXT_NODE && one.textContent!.trim() !== ''));
  return ![...main.querySelectorAll('*')].some(shows);
}
