/** Universes from their senders on: planned, found wanting, mended. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { Machine } from '@taxiarch/core/show/records';
import { api, open, undo } from './whole';

const bridge = async () =>
  (await api<{ records: { machine: Machine[] } }>('/api/show')).records.machine.find(
    ({ name }) => name === 'Bridge desk',
  )!;
const says = (page: Page, text: string | RegExp) => expect(page.getByText(text).first()).toBeVisible();

test('a sender loses a universe; what that brings is told before, found after, and mended', async ({ page }) => {
  await open(page, '/flow');
  await page.getByRole('link', { name: 'Senders' }).click();
  await says(page, '5 of 5 planned senders heard.');
  await page.getByRole('link', { name: 'Bridge desk' }).click();
  await page.getByRole('checkbox', { name: 'Universes 9-12' }).click();
  const universes = page.getByLabel('Show universes');
  await universes.fill('9-11 x');
  await page.getByRole('button', { name: 'Put in the table' }).click();
  await says(page, /“x” is no universe/);
  await universes.fill('9-11');
  await page.getByRole('button', { name: 'Put in the table' }).click();
  await says(page, '9-11 → Art-Net 8-10 (9-11 counted from 1)');
  const preview = page.getByRole('region', { name: 'Preview' });
  await expect(preview).toContainText(/Universe 12 has \d+ lamps and runs, and nobody is planned to send it\./);
  await page.getByRole('button', { name: 'Change the sender' }).click();
  await says(page, 'Changed the sender Bridge desk.');

  await open(page, '/wire/findings');
  await says(page, '2 findings in the plan of the network.');
  await says(page, /Wheelhouse node, port 2, carries universe 12, which nobody sends/);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'planned to send it' })
    .getByRole('button', { name: 'Mend' })
    .click();
  await page.getByRole('button', { name: 'Have Bridge desk send it' }).last().click();
  await says(page, 'The plan of the network has no faults.');
  await expect.poll(async () => (await bridge()).sends!.lines.reduce((sum, { count }) => sum + count, 0)).toBe(12);
  await undo();
  await undo();
});

test('a sender is added with universes that the show lacks, and taken back', async ({ page }) => {
  await open(page, '/flow/senders/new');
  await page.getByLabel('Name of the machine').fill('Stern desk');
  await page.getByRole('button', { name: 'Add a line' }).click();
  await page.getByLabel('Show universes').fill('1, 60');
  await page.getByLabel('Priority').fill('90');
  await page.getByRole('button', { name: 'Put in the table' }).click();
  const preview = page.getByRole('region', { name: 'Preview' });
  await expect(preview).toContainText('Universe 60');
  await expect(preview).toContainText(
    'Stern desk is planned to send universe 60, which has no lamps and leaves by no port.',
  );
  await page.getByRole('button', { name: 'Add the sender' }).click();
  await says(page, 'Added the sender Stern desk.');
  await says(page, /universes 1, 60 · priority 90/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await says(page, '5 of 5 planned senders heard.');
});
