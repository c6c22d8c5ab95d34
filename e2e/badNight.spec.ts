/** A bad night: ten faults in the plan, each found and mended where it is told of, until all is fine. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { ShowReply, StandIn } from '@taxiarch/core/whole/contract';
import { api, handle, open } from './whole';

const showName = async () => (await api<ShowReply>('/api/show')).records.show[0]!.name;

/** Mends the first finding by the first way that is offered, again and again, until the sentence says that all is well. */
async function mendAll(page: Page, path: string, fine: RegExp): Promise<number> {
  await open(page, path);
  const well = page.getByRole('heading', { level: 1 }).filter({ hasText: fine }).first();
  const mend = page.getByRole('button', { name: 'Mend' }).first();
  let mended = 0;
  for (; mended < 30; mended += 1) {
    await expect(well.or(mend).first()).toBeVisible();
    if (await well.isVisible()) break;
    const card = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: 'Mend' }) });
    const said = await card.first().textContent();
    await mend.click();
    await page.getByRole('region', { name: 'Preview' }).getByRole('button').last().click();
    await expect(page.getByRole('listitem').filter({ hasText: said!.slice(0, 60) })).toHaveCount(0);
  }
  return mended;
}

test.afterAll(async () => {
  if ((await showName()) !== 'Night Ferry')
    await api('/api/show/shipped', { author: 'the tests', show: 'night-ferry' });
});

test('the bad night is opened, mended finding by finding, and fine at its end', async ({ page }) => {
  test.slow();
  await open(page, '/show');
  await page.getByRole('button', { name: 'Open Night Ferry, bad night' }).click();
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect.poll(showName).toBe('Night Ferry, bad night');

  // Not the plan alone is wrong: a cable is out, a desk is off, and the wire shows it.
  const plugged = async () => (await api<StandIn[]>('/api/stand-ins')).find(({ id }) => id === 'boiler')!.plugged;
  await expect.poll(plugged).toBe(false);
  await open(page, '/listen');
  await expect(page.getByText(/^38 of 40 universes steady on the wire/)).toBeVisible();
  await handle('all', { reset: true });

  await open(page, '/flow/links/link-porthole');
  await page.getByRole('button', { name: 'Say that it counts from 1' }).click();
  expect(await mendAll(page, '/rig/findings', /The patch has no faults/)).toBeGreaterThanOrEqual(2);
  expect(await mendAll(page, '/wire/findings', /has no faults/)).toBeGreaterThanOrEqual(7);
  await open(page, '/rig');
  await expect(page.getByText(/No addresses collide\./).first()).toBeVisible();
  await open(page, '/flow/links');
  // None ships answered: nothing is wrong, and nothing is called fine that nobody looked at.
  await expect(page.getByText(/^\d of 3 links said or seen to arrive\./)).not.toContainText('to mend');
});
