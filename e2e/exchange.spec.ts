/** The rig handed over live, and DMX through a plug: with stand-ins that know nothing of the show. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { BRIDGE_DESK, UDP, api, handle, makeSafe, open, panel, settings, undo } from './whole';

const CROW = 24;
interface Held {
  readonly comment: string;
  readonly selected: readonly number[];
  readonly rig: readonly { readonly number: number; readonly channel: number; readonly mode: string }[];
}
const held = (host: number) => panel<Held>(host, 'held');
const show = async () => (await api<ShowReply>('/api/show')).records;
const lamp = async (number: number) => (await show()).lamp.find((one) => one.number === number);
const OFF = { stations: false, citp: false, selects: false };

test.afterEach(async () => {
  await makeSafe();
  await settings(OFF);
  // What was handed to them is theirs: they hold their own files again.
  for (const host of [BRIDGE_DESK, CROW]) await panel(host, 'reset', {});
});

const station = (page: Page, name: string) =>
  page.getByRole('list', { name: 'Stations' }).getByRole('listitem', { name });

test('a station differs: compared, two rows taken over, ours offered, and held at the other end', async ({ page }) => {
  await open(page, '/rig/exchange');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^The exchange is off/);
  await page.getByRole('checkbox', { name: 'Exchange rigs with stations (MVR-xchange)' }).click();
  await expect(station(page, 'Bridge desk')).toContainText('joined');
  await expect(station(page, 'Bridge desk')).toContainText('its own file, from before the last rehearsal');
  const before = [await lamp(101), await lamp(105)];

  await station(page, 'Bridge desk').getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('3 differ');
  expect(await lamp(105)).toEqual(before[1]);
  // Its number stays as it is here.
  await page.getByRole('checkbox', { name: /Port spot 12/ }).click();
  await page.getByRole('button', { name: 'Import 2 rows' }).click();
  await expect(page.getByRole('status', { name: 'Just done' })).toContainText('Imported Bridge desk');
  await expect.poll(async () => (await lamp(105))?.channel).toBe(before[1]!.channel + 1);
  expect((await lamp(101))?.mode).not.toBe(before[0]!.mode);
  expect((await lamp(112))?.name).toBe('Port spot 12');

  await open(page, '/rig/exchange');
  await page.getByLabel('Comment').fill('as it hangs now');
  await page.getByRole('button', { name: 'Offer the rig' }).click();
  await expect(page.getByText(/^Offered 420 lamps; 2 stations took note\.$/)).toBeVisible();
  for (const host of [BRIDGE_DESK, CROW]) {
    await expect.poll(async () => (await held(host)).comment).toBe('as it hangs now (Mara)');
    expect((await held(host)).rig.find(({ number }) => number === 105)?.channel).toBe(before[1]!.channel + 1);
  }
  await undo();
  await page.getByRole('checkbox', { name: 'Exchange rigs with stations (MVR-xchange)' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^The exchange is off/);
});

test('lamps chosen here are selected there, and those selected there are marked here and walked', async ({ page }) => {
  await settings({ citp: true });
  await open(page, '/rig/exchange');
  const crow = page
    .getByRole('list', { name: 'Programs that speak CITP' })
    .getByRole('listitem', { name: 'Crow’s nest' });
  await expect(crow).toContainText(/it told \d+ lamps/);
  await page.getByRole('checkbox', { name: 'Select lamps together with them, both ways' }).click();
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Choose lamps' }).click();
  await page.getByLabel('Search lamps').fill('Port spot 1');
  await page.getByRole('checkbox', { name: /^Lamp 101 / }).click();
  await expect.poll(async () => (await held(CROW)).selected).toEqual([101]);
  await page.getByRole('button', { name: 'Done' }).click();
  await expect.poll(async () => (await held(CROW)).selected).toEqual([]);

  await panel(CROW, 'select', { numbers: [103, 104] });
  await expect(page.getByRole('listitem', { name: 'Selected in Crow’s nest' })).toContainText('103, 104');
  await page.getByLabel('Search lamps').fill('Port spot 3');
  await expect(page.getByText('selected in Crow’s nest').first()).toBeVisible();
  await page.getByRole('button', { name: 'Walk them' }).click();
  await expect(page).toHaveURL(/\/prove/);
  await panel(CROW, 'select', { numbers: [] });
});

test('the doctor of a link tells what the other end says of its lamps, and one is selected there', async ({ page }) => {
  await settings({ citp: true, selects: true });
  await open(page, '/flow/links/link-bridge-sacn');
  const line = page.getByRole('listitem').filter({ hasText: 'The same lamps on both sides' });
  await expect(line).toContainText(/Crow’s nest says/);
  await line.getByRole('button', { name: 'Compare with the patch of Crow’s nest' }).click();
  await expect(page).toHaveURL(/\/rig\/arrivals\//);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Crow’s nest, its patch.csv');
});

test('an adapter sends a universe; both ends are alike, one is unplugged and comes back, and safe stops it', async ({
  page,
}) => {
  await open(page, '/wire/adapters');
  await page.getByRole('button', { name: 'Add an adapter' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Chart plug');
  await page.getByLabel('Or reached at').fill(`127.0.0.46:${UDP.plug}`);
  await page.getByLabel('Universe', { exact: true }).fill('2');
  await page.getByRole('button', { name: 'Add the adapter' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Chart plug is off.');
  await page.getByRole('button', { name: 'Make hot and send' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Chart plug sends [\d.]+ frames a second/);
  await expect(page.getByRole('status', { name: 'Live strip' })).toContainText('1 adapter sending');
  await expect(
    page.getByText(/channels are alike here and on the line|differ.*here and on the line/).first(),
  ).toBeVisible();
  const values = (await panel<{ values: number[] }>(46, 'values')).values;
  expect(values.some((level) => level > 0)).toBe(true);

  await handle('chart-plug', { plugged: false });
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Chart plug is not there: /);
  await handle('chart-plug', { plugged: true });
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Chart plug sends/);
  await expect(page.getByText(/came back 1 time/)).toBeVisible();
  await page.getByRole('button', { name: 'Make safe' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Chart plug is off.');
  await undo();
});
