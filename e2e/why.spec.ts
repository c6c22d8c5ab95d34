/** What was once believed too easily: each is told where one lands, and mended from Why?. */
import { expect, test, type Page } from '@playwright/test';
import type { ShowReply } from '@taxiarch/core/contract';
import { api, handle, makeSafe, open } from './whole';

test.afterEach(async () => {
  await makeSafe();
  await handle('all', { reset: true });
  // What was looked at and kept on the way is not the next test's.
  const { records } = await api<ShowReply>('/api/show');
  const changes = (['snapshot', 'sighting'] as const).flatMap((kind) =>
    records[kind].map(({ id, rev }) => ({ kind, id, rev, after: null })),
  );
  if (changes.length > 0) await api('/api/edits', { author: 'Ivo', sentence: 'Cleared what was kept', changes });
});

const verdict = (page: Page) => page.getByRole('heading', { level: 1 }).first();
const well = /^Nothing stands against it that can be heard or is said; 420 of 420 lamps nobody has seen\.$/;

test('a port set to another universe: the universe leaves no port, the lamps are counted, and Why? mends it', async ({
  page,
}) => {
  test.slow();
  await open(page, '/');
  await expect(verdict(page)).toHaveText(well, { timeout: 30_000 });
  await handle('car-deck', { turn: { port: 3, wire: 9 } });
  await expect(verdict(page)).toHaveText(
    /^Not yet\. Port 3 of Car deck node is set to sACN 9, planned is sACN 4: 28 lamps without light/,
    { timeout: 30_000 },
  );
  await open(page, '/flow');
  await expect(verdict(page)).toContainText('39 of 40 universes leave a port, as the ports say.');

  await page.getByRole('link', { name: 'Why? Universe 4', exact: true }).click();
  const path = page.getByRole('list', { name: 'The path' });
  await expect(path.getByRole('listitem').filter({ hasText: 'Here it breaks first' })).toContainText('set to sACN 9');
  await page.getByRole('button', { name: 'Make hot and push to Car deck node' }).click();
  await expect(page.getByText('Port 3, universe').first()).toBeVisible();
  await open(page, '/');
  await expect(verdict(page)).toHaveText(well, { timeout: 30_000 });
});

test('a visualiser that gets nothing: its links are not fine, and Why? says what to do', async ({ page }) => {
  test.slow();
  await handle('crow', { faults: { early: true } });
  await open(page, '/flow/links');
  await expect(page.getByText(/2 to mend\./)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: /^Porthole to Crow/ }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'It arrives' })).toContainText(
    'nothing comes in for 13-38',
  );
  await page.getByRole('button', { name: /^Why\? Porthole to Crow/ }).click();
  await expect(verdict(page)).toContainText('Crow’s nest was started before its sender', { timeout: 20_000 });
  await expect(page.getByText('Start Crow’s nest again.')).toBeVisible();
  await handle('crow', { faults: { early: false } });
  await expect(verdict(page)).not.toContainText('started before', { timeout: 30_000 });
});

test('a node that does not answer: two causes fit, one question tells them apart, and what was seen stays', async ({
  page,
}) => {
  test.slow();
  await handle('quay', { plugged: false });
  await open(page, '/why?kind=machine&id=machine-quay');
  const question = page.getByRole('group', { name: 'A question' });
  await expect(question).toContainText('Are the lights of Quay node on?', { timeout: 30_000 });
  await question.getByRole('button', { name: 'Yes' }).click();
  await expect(verdict(page)).toHaveText(/The network cable of Quay node is out/, { timeout: 20_000 });
  await expect(verdict(page)).not.toContainText('It may be');
});
