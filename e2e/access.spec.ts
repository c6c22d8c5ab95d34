/** Every page as a screen reader meets it: audited for roles, names and landmarks; no two buttons of one name. */
import { readFileSync } from 'node:fs';
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import { open } from './whole';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const PAGES = [
  '/',
  '/why?kind=lamp&id=lamp-101',
  '/why?kind=link&id=link-porthole',
  '/rig',
  '/rig/lamp-101',
  '/rig/add',
  '/rig/change',
  '/rig/dip',
  '/rig/blocks',
  '/rig/files',
  '/rig/exchange',
  '/rig/findings',
  '/rig/plan',
  '/rig/pixels',
  '/rig/pixels/run-802',
  '/rig/controllers/machine-cord',
  '/rig/types',
  '/rig/types/type-haze',
  '/rig/universes',
  '/rig/universes/2',
  '/rig/universes/2?view=way',
  '/rig/universes/add',
  '/rig/universes/change',
  '/wire',
  '/wire/machine-car-deck',
  '/wire/change/machine-car-deck',
  '/wire/ports/machine-car-deck',
  '/wire/127.0.0.31',
  '/wire/adapters',
  '/wire/adapters/new',
  '/wire/same-computer',
  '/wire/addresses',
  '/wire/addresses/new',
  '/wire/findings',
  '/wire/here',
  '/wire/kept',
  '/wire/models',
  '/wire/models/new',
  '/wire/reach',
  '/wire/stand-ins',
  '/wire/table',
  '/flow',
  '/flow/map',
  '/flow/links',
  '/flow/links/link-porthole',
  '/flow/links/new',
  '/flow/links/compare',
  '/flow/routes',
  '/flow/routes/new',
  '/flow/senders',
  '/flow/senders/new',
  '/flow/outlet?universes=1',
  '/listen',
  '/listen/u2',
  '/listen/u7?slot=40',
  '/prove',
  '/prove/roll',
  '/prove/eye',
  '/prove/arrange',
  '/prove/walks',
  '/prove/pictures',
  '/prove/what-if',
  '/prove/proof',
  '/show',
];
/** On a wide screen a list and its detail stand beside each other: one page of each make is enough. */
const WIDE_PAGES = [
  '/',
  '/rig/lamp-101',
  '/rig/universes/2',
  '/wire/machine-car-deck',
  '/flow',
  '/listen/u7?slot=40',
  '/prove',
];

interface Violation {
  readonly id: string;
  readonly impact: string;
  readonly nodes: readonly { readonly html: string }[];
}

async function audit(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  const violations = await page.evaluate(async () => {
    const { axe } = globalThis as unknown as { axe: { run(options: object): Promise<{ violations: Violation[] }> } };
    return (await axe.run({ resultTypes: ['violations'] })).violations;
  });
  return violations
    .filter(({ impact, id }) => impact === 'critical' || impact === 'serious' || /landmark|region|heading-one/.test(id))
    .map(({ id, nodes }) => `${id} (${nodes.length}): ${nodes[0]!.html.slice(0, 160)}`);
}

/** Names that more than one button in sight has. */
async function repeated(page: Page): Promise<string[]> {
  const seen = new Map<string, number>();
  // Read all at once: the page may change meanwhile.
  const names = await page
    .getByRole('button')
    .evaluateAll((buttons) => buttons.map((one) => one.getAttribute('aria-label') ?? one.textContent ?? ''));
  for (const name of names) seen.set(name, (seen.get(name) ?? 0) + 1);
  return [...seen].filter(([, times]) => times > 1).map(([name, times]) => `${times} buttons named “${name}”`);
}

test('every page passes an audit of roles, names and landmarks', async ({ page }, { project }) => {
  test.setTimeout(480_000);
  const found: Record<string, string[]> = {};
  for (const path of project.name === 'wide' ? WIDE_PAGES : PAGES) {
    await open(page, path);
    // Its ways on stand there before the page itself has come.
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    const faults = [...(await audit(page)), ...(await repeated(page))];
    if (faults.length > 0) found[path] = faults;
  }
  expect(found).toEqual({});
});
