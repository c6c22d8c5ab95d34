/** Pictures of the main views for docs/screenshots, from the demo show. Made by `npm run screens`. */
import { join, resolve } from 'node:path';
import { test } from '@playwright/test';
import { api, makeSafe, open } from './whole';

const FOLDER = resolve(__dirname, '../docs/screenshots');
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

/** Name, size, address; then what is pressed. */
const VIEWS = [
  ['rig', PHONE, '/rig', []],
  ['rig-plan', PHONE, '/rig/plan', []],
  ['rig-inout', PHONE, '/rig/inout', []],
  ['lamp', PHONE, '/rig/lamp-101', []],
  ['listen', PHONE, '/listen', []],
  ['slots', PHONE, '/listen/u2', []],
  ['slot', PHONE, '/listen/u7?slot=40', []],
  ['slots-plain', PHONE, '/listen/u6', ['All 512']],
  ['wire', PHONE, '/wire', []],
  ['flow', PHONE, '/flow', []],
  ['prove-choose', PHONE, '/prove', []],
  ['show', PHONE, '/show', []],
  ['rig-wide', WIDE, '/rig/lamp-101', []],
  ['slots-wide', WIDE, '/listen/u7?slot=40', []],
  ['flow-wide', WIDE, '/flow', []],
] as const;

for (const [name, viewport, path, presses] of VIEWS)
  test(name, async ({ page }) => {
    await page.setViewportSize(viewport);
    await open(page, path);
    for (const press of presses) await page.getByRole('radio', { name: press }).click();
    await page.waitForTimeout(1500);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
  });

test('adding lamps', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await open(page, '/rig/add');
  await page.getByRole('button', { name: 'Baleen Spot 16' }).click();
  await page.getByLabel('Name, # is the running number').fill('Mast spot #');
  await page.getByLabel('Begin at').fill('2/470');
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(FOLDER, 'rig-add.png') });
});

test('a fault of the patch, and its mends', async ({ page }) => {
  const { records } = await api<{ records: { lamp: { id: string; rev: number }[] } }>('/api/show');
  const lamp = records.lamp.find(({ id }) => id === 'lamp-102')!;
  await api('/api/edits', {
    author: 'Ivo',
    sentence: 'Moved lamp 102 to 2/11',
    changes: [{ kind: 'lamp', id: lamp.id, rev: lamp.rev, after: { ...lamp, channel: 11 } }],
  });
  await page.setViewportSize(PHONE);
  await open(page, '/rig/findings');
  await page.getByRole('button', { name: 'Mend' }).first().click();
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(FOLDER, 'rig-findings.png') });
  await api('/api/undo', { author: 'Ivo' });
});

test('prove, hot', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await open(page, '/rig/lamp-101');
  await page.getByRole('button', { name: 'Prove this lamp' }).click();
  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await page.getByRole('button', { name: 'Highlight' }).click();
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(FOLDER, 'prove-hot.png') });
  await api('/api/output/give-back', {});
  await makeSafe();
});

test.describe('in daylight', () => {
  test.use({ colorScheme: 'light' });
  test('listen, daylight', async ({ page }) => {
    await page.setViewportSize(PHONE);
    await open(page, '/listen/u2?slot=3');
    await page.waitForTimeout(1200);
    await page.screenshot({ path: join(FOLDER, 'slot-daylight.png') });
  });
});
