/// <reference lib="dom.iterable" />
/** What a person does to a page, chosen by a seed and written down so that it can be done again. */
import type { Page } from '@playwright/test';
import type { Random } from './random';

export type Step =
  | { readonly kind: 'tap' | 'type' | 'choose'; readonly control: string; readonly nth: number; readonly value: string }
  | { readonly kind: 'open'; readonly value: string }
  | {
      readonly kind:
        | 'back'
        | 'forward'
        | 'reload'
        | 'turn'
        | 'offline'
        | 'online'
        | 'jump'
        | 'press'
        /** Opens a second window at the same address, or closes it and comes back to the first */
        | 'window';
      readonly value: string;
    };

export const wordsOf = (step: Step): string =>
  'control' in step
    ? `${step.kind} “${step.control}”${step.nth > 0 ? ` (number ${step.nth + 1})` : ''}${step.kind === 'tap' ? '' : `: “${step.value}”`}`
    : `${step.kind}${step.value === '' ? '' : ` ${step.value}`}`;

const TYPED = [
  ...[
    '1',
    '3/47',
    '101',
    '201-210',
    '12',
    'wash',
    'Car deck',
    '127.0.0.31',
    '10.0.0.44',
    '255.0.0.0',
    '44',
    '0.5',
    'u7',
  ],
  ...[
    '',
    ' ',
    '-1',
    '0',
    '99999999999999999999',
    '3/999',
    '1.1',
    '256.1.1.1',
    'ä€”“😀',
    'x'.repeat(300),
    '<b>hello</b>',
    "'; --",
    '1e9',
    'NaN',
  ],
];

const PATHS = [
  ...[
    '/',
    '/rig',
    '/wire',
    '/flow',
    '/listen',
    '/prove',
    '/show',
    '/practise',
    '/rig/plan',
    '/rig/lamp-101',
    '/rig/types',
  ],
  ...[
    '/rig/universes/2',
    '/wire/here',
    '/wire/table',
    '/wire/machine-boiler',
    '/flow/links',
    '/flow/routes',
    '/listen/u7',
  ],
  ...[
    '/prove/roll',
    '/prove/walks',
    '/prove/proof',
    '/prove/what-if',
    '/why?kind=universe&id=9',
    '/rig/nothing',
    '/nowhere',
  ],
];

/** Keys that do the same everywhere */
const KEYS = ['Escape', 'Control+z', 'Control+Shift+z', 'Control+a', 'ArrowDown', 'ArrowUp', ' ', 'Tab', 'Enter'];

interface Control {
  readonly name: string;
  readonly nth: number;
  readonly kind: 'tap' | 'type' | 'choose';
  readonly options: readonly string[];
}

/** In the page: everything that can be pressed, typed into or chosen from, with its name and which of that name it is. */
function controlsOfPage(): Control[] {
  const counts = new Map<string, number>();
  const dialog = [...document.querySelectorAll('[role=dialog]')].filter((one) => one.checkVisibility()).at(-1);
  const all = (dialog ?? document).querySelectorAll<HTMLElement>(
    'a[href], button, [role=button], [role=radio], [role=checkbox], [role=switch], input, select, textarea',
  );
  return [...all].flatMap((element): Control[] => {
    const box = element.getBoundingClientRect();
    if (box.width < 1 || box.height < 1 || !element.checkVisibility({ visibilityProperty: true })) return [];
    const tag = element.tagName;
    const name = (element.getAttribute('aria-label') ?? (tag === 'SELECT' ? tag : element.textContent) ?? '')
      .trim()
      .slice(0, 60);
    const nth = counts.get(name) ?? 0;
    counts.set(name, nth + 1);
    if (element.getAttribute('aria-disabled') === 'true' || (element as HTMLButtonElement).disabled) return [];
    if (element instanceof HTMLInputElement && element.type === 'file') return [];
    const kind = tag === 'SELECT' ? 'choose' : tag === 'INPUT' || tag === 'TEXTAREA' ? 'type' : 'tap';
    const options = element instanceof HTMLSelectElement ? [...element.options].map(({ value }) => value) : [];
    return [{ name, nth, kind, options }];
  });
}

const ALL = 'a[href], button, [role=button], [role=radio], [role=checkbox], [role=switch], input, select, textarea';

const WEIGHTS = {
  control: 70,
  back: 10,
  forward: 3,
  reload: 2,
  turn: 2,
  offline: 1,
  open: 4,
  area: 6,
  jump: 2,
  press: 4,
  window: 2,
} as const;

export async function nextStep(page: Page, random: Random, offline: boolean): Promise<Step> {
  if (offline && random.next() < 0.3) return { kind: 'online', value: '' };
  const what = random.weighted(WEIGHTS);
  if (what === 'open') return offline ? { kind: 'back', value: '' } : { kind: 'open', value: random.pick(PATHS) };
  if (what === 'reload' && offline) return { kind: 'online', value: '' };
  if (what === 'press') return { kind: 'press', value: random.pick(KEYS) };
  if (what === 'window' && offline) return { kind: 'online', value: '' };
  if (what === 'jump') return { kind: 'jump', value: random.pick(TYPED) };
  if (what === 'area')
    return { kind: 'tap', control: random.pick(['Rig', 'Wire', 'Flow', 'Listen', 'Prove']), nth: 0, value: '' };
  if (what !== 'control') return { kind: what, value: '' };
  const controls = await page.evaluate(controlsOfPage);
  if (controls.length === 0) return { kind: 'back', value: '' };
  const { name, nth, kind, options } = random.pick(controls);
  const value = kind === 'type' ? random.pick(TYPED) : kind === 'choose' ? random.pick(options) : '';
  return { kind, control: name, nth, value: value ?? '' };
}

/** Finds the control that a step means; undefined if it is not there any more. */
async function find(page: Page, control: string, nth: number) {
  const handle = await page.evaluateHandle(
    ({ all, wanted, which }) => {
      let seen = 0;
      const dialog = [...document.querySelectorAll('[role=dialog]')].filter((one) => one.checkVisibility()).at(-1);
      for (const element of (dialog ?? document).querySelectorAll<HTMLElement>(all)) {
        const box = element.getBoundingClientRect();
        if (box.width < 1 || box.height < 1 || !element.checkVisibility({ visibilityProperty: true })) continue;
        const tag = element.tagName;
        const name = (element.getAttribute('aria-label') ?? (tag === 'SELECT' ? tag : element.textContent) ?? '')
          .trim()
          .slice(0, 60);
        if (name === wanted && seen++ === which) return element;
      }
      return null;
    },
    { all: ALL, wanted: control, which: nth },
  );
  return handle.asElement();
}

/** Does it; what cannot be done any more, because the page changed meanwhile, is left out. */
export async function doStep(page: Page, step: Step, base: string): Promise<void> {
  const patience = { timeout: 3000 };
  switch (step.kind) {
    case 'back':
      // Before the first page of the app there is nothing of ours.
      if (!(await page.evaluate('navigation.canGoBack').catch(() => false))) return;
      return void (await page.goBack({ timeout: 10_000 }).catch(() => undefined));
    case 'forward':
      return void (await page.goForward({ timeout: 10_000 }).catch(() => undefined));
    case 'reload':
      return void (await page.reload());
    case 'open':
      return void (await page.goto(base + step.value));
    case 'turn': {
      const { width, height } = page.viewportSize()!;
      return page.setViewportSize({ width: height, height: width });
    }
    case 'offline':
      return page.context().setOffline(true);
    case 'online':
      return page.context().setOffline(false);
    case 'jump':
      await page.keyboard.press('/');
      await page.keyboard.type(step.value.slice(0, 40));
      return page.keyboard.press('Enter');
    case 'press':
      return page.keyboard.press(step.value);
    case 'window':
      return;
    case 'tap': {
      const element = await find(page, step.control, step.nth);
      await element?.scrollIntoViewIfNeeded(patience).catch(() => undefined);
      return element?.click({ ...patience, noWaitAfter: true }).catch(() => undefined);
    }
    case 'type': {
      const element = await find(page, step.control, step.nth);
      return element?.fill(step.value, patience).catch(() => undefined);
    }
    case 'choose': {
      const element = await find(page, step.control, step.nth);
      await element?.selectOption(step.value, patience).catch(() => undefined);
    }
  }
}
