/** A plan begun from nothing, on a phone: what a person taps and types is counted. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { OWN, startServer, type Served } from './whole';

test.use({ viewport: { width: 390, height: 844 } });

let served: Served;
let folder: string;
test.beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'taxiarch-e2e-nothing-'));
  served = await startServer({ folder, port: OWN.page, sacn: OWN.sacn, artnet: OWN.artnet, empty: true });
});
test.afterEach(async ({ page }) => {
  await page.close();
  await served.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Every tap and every value that is typed or chosen is one. */
class Hands {
  count = 0;
  constructor(private readonly page: Page) {}

  async tap(name: string | RegExp, role: 'button' | 'link' | 'radio' = 'button'): Promise<void> {
    this.count += 1;
    await this.page.getByRole(role, { name }).first().click();
  }

  async type(label: string, value: string): Promise<void> {
    this.count += 1;
    await this.page.getByLabel(label, { exact: true }).filter({ visible: true }).fill(value);
  }
}

test('four lamps, a console, a node of two ports and a visualiser, in no more than 25 taps and typed values', async ({
  page,
}) => {
  const hands = new Hands(page);
  await page.goto(`${served.base}/rig`);
  await expect(page.getByText('No lamps yet.')).toBeVisible();
  await hands.tap('Add lamps');
  await hands.type('Search types', 'lantern');
  await hands.tap(/Lantern 1k/);
  await hands.tap('Add 4 lamps');
  // The device asks who works here before it writes for the first time.
  await hands.type('Your name', 'Mara');
  await hands.tap('That is me');

  // Their universe came with them, and says what it lacks.
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Universe 1');
  await hands.tap('Plan who sends it');
  await hands.type('Name of the machine', 'Front desk');
  await hands.type('Address', '10.0.0.10');
  await hands.tap('Add the sender');

  await hands.tap('Plan where it leaves');
  await hands.type('Name of the node', 'Truss node');
  await hands.type('Address', '10.0.0.31');
  await hands.tap('Plan it');

  await expect(page.getByText('Truss node, port 1').filter({ visible: true })).toBeVisible();
  await hands.tap('Flow', 'link');
  await hands.tap('Links', 'link');
  await hands.tap('Add a link');
  await hands.type('Name of the visualiser', 'Previz');
  await hands.type('Address', '10.0.0.40');
  await hands.tap('Add the link');
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/^Front desk by sACN to Previz/);

  const { records } = (await (await fetch(`${served.base}/api/show`)).json()) as ShowReply;
  expect(records.lamp.map(({ universe, channel }) => [universe, channel])).toEqual([
    [1, 1],
    [1, 2],
    [1, 3],
    [1, 4],
  ]);
  expect(records.universe).toMatchObject([{ number: 1, protocol: 'sacn', wire: 1 }]);
  expect(records.machine.map(({ kind, name }) => [kind, name]).sort()).toEqual([
    ['console', 'Front desk'],
    ['node', 'Truss node'],
    ['visualiser', 'Previz'],
  ]);
  const node = records.machine.find(({ kind }) => kind === 'node')!;
  expect(node.ports.map(({ use, universe }) => [use, universe])).toEqual([
    ['out', 1],
    ['off', 1],
  ]);
  expect(records.machine.find(({ kind }) => kind === 'console')!.sends!.lines).toMatchObject([{ from: 1, count: 1 }]);
  expect(records.link).toMatchObject([{ lines: [{ from: 1, count: 1, to: 1 }] }]);
  expect(hands.count).toBeLessThanOrEqual(25);

  // What was planned in a moment is no fault in the next.
  await page.goto(`${served.base}/wire/findings`);
  await expect(page.getByRole('heading', { level: 1 })).not.toContainText('Looking');
  await expect(page.getByText(/must fix/)).toHaveCount(0);
});

test('the show is named, its universes are added, given other numbers, sent by the other protocol, and deleted', async ({
  page,
}) => {
  await page.addInitScript("localStorage.setItem('person', 'Mara')");
  await page.goto(`${served.base}/show`);
  await page.getByLabel('Name of the show').fill('Winter gala');
  await page.getByRole('button', { name: 'Keep name and description' }).click();
  await expect(page.getByRole('link', { name: 'This show and this computer' })).toContainText('Winter gala');

  await page.goto(`${served.base}/flow`);
  await page.getByRole('button', { name: 'Add universes' }).click();
  await page.getByLabel('Which, as 5 or 1-8').fill('1-4');
  await page.getByLabel('Name, # is the number').fill('Truss #');
  await page.getByRole('button', { name: 'Add 4 universes' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('24 channels would fit at 1/1.');

  await page.getByRole('link', { name: /^3 / }).click();
  await page.getByRole('radio', { name: 'Name, number, way' }).click();
  await page.getByRole('radio', { name: 'Art-Net' }).click();
  // In the counting that the person chooses, and shown in both.
  await expect(page.getByText('2 counted from 0, 3 counted from 1, 0.0.2 as net, sub-net and universe.')).toBeVisible();
  await page.getByRole('radio', { name: 'From 1' }).click();
  await expect(page.getByLabel('Number on the wire')).toHaveValue('3');
  await page.getByLabel('Number on the wire').fill('19');
  await expect(page.getByText(/^18 counted from 0, 19 counted from 1, 0\.1\.2/)).toBeVisible();
  await page.getByRole('button', { name: 'Change the universe' }).click();
  await expect(page.getByRole('button', { name: 'Change the universe' })).toHaveCount(0);

  await page.getByRole('button', { name: 'Renumber' }).click();
  await page.getByLabel('Which, as 5 or 1-8, 12').fill('3-4');
  await page.getByLabel('The first becomes').fill('13');
  await page.getByRole('button', { name: 'Renumber in the show' }).click();
  await expect(page.getByRole('link', { name: /^14 / })).toBeVisible();

  await page.getByRole('link', { name: /^14 / }).click();
  await page.getByRole('radio', { name: 'Name, number, way' }).click();
  await page.getByRole('button', { name: 'Delete universe 14' }).click();
  await page.getByRole('button', { name: /^Delete it/ }).click();
  // Back at the list, which names what is left.
  await expect(page.getByRole('link', { name: /^13 / })).toBeVisible();
  await expect(page.getByRole('link', { name: /^14 / })).toHaveCount(0);
  const { records } = (await (await fetch(`${served.base}/api/show`)).json()) as ShowReply;
  expect(records.universe.map(({ number, protocol, wire }) => [number, protocol, wire])).toEqual([
    [1, 'sacn', 1],
    [2, 'sacn', 2],
    [13, 'artnet', 18],
  ]);
});
