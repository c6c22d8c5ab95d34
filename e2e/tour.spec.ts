/** The first minutes of somebody who has never seen it: what is done first, by what is written on the screen, with Back after each. */
import type { Page } from '@playwright/test';
import { expect, test } from './fixture';
import { BASE, WHEELHOUSE_NODE, levelAt, makeSafe, undo } from './whole';

const area = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name, exact: true }).click();
const back = (page: Page) => page.getByRole('button', { name: 'Back', exact: true }).click();
const at = (page: Page, path: string) => expect(page).toHaveURL(BASE + path);
const headline = (page: Page) => page.getByRole('heading', { level: 1 }).filter({ visible: true });
const isPhone = (page: Page) => page.viewportSize()!.width < 1024;

test.afterEach(makeSafe);

test.beforeEach(async ({ page }) => {
  await page.goto(BASE);
  await expect(headline(page).first()).toBeVisible();
});

test('looks at a lamp and goes back, by the arrow and by the browser', async ({ page }) => {
  await area(page, 'Rig');
  for (const goBack of [() => back(page), () => page.goBack(), () => back(page)]) {
    await page.getByRole('link', { name: /Wheelhouse lantern 2/ }).click();
    await expect(page.getByRole('heading', { name: /Wheelhouse lantern 2 at 1\/2/ })).toBeVisible();
    await goBack();
    await at(page, '/rig');
    await expect(page.getByRole('link', { name: /Wheelhouse lantern 3/ })).toBeVisible();
  }
});

test('searches, scrolls, opens a lamp: the list comes back as it was left, after a reload too', async ({ page }) => {
  await area(page, 'Rig');
  const search = page.getByRole('textbox', { name: 'Search lamps' });
  await search.fill('wash');
  const far = page.getByRole('link', { name: /Port wash 12/ });
  await far.scrollIntoViewIfNeeded();
  await far.click();
  await expect(page.getByRole('heading', { name: /Port wash 12 at/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: /Port wash 12 at/ })).toBeVisible();
  await back(page);
  await expect(search).toHaveValue('wash');
  await expect(far).toBeInViewport();
});

test('finds a universe, sees its values, asks why, and comes back step by step', async ({ page }) => {
  await area(page, 'Listen');
  await page.getByRole('link', { name: /^7 / }).click();
  await expect(page.getByRole('button', { name: /^Slot 1, / })).toBeVisible();
  await page.getByRole('button', { name: /^Slot 1, / }).click();
  await page.getByRole('link', { name: 'Why? Its whole path' }).first().click();
  await expect(page).toHaveURL(/\/why/);
  await expect(
    page
      .getByText(/^Why\? /)
      .filter({ visible: true })
      .first(),
  ).toBeVisible();
  await back(page);
  await expect(page).toHaveURL(/\/listen\/u7/);
  await back(page);
  await at(page, '/listen');
  await back(page);
  await at(page, '/');
});

test('opens a node, changes its name, pushes it, and takes that back', async ({ page }) => {
  await area(page, 'Wire');
  await page.getByRole('link', { name: /Quay node/ }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Quay node two');
  await page.getByRole('button', { name: 'Change the machine' }).click();
  await expect(page).toHaveURL(/\/wire\/machine-quay$/);
  await expect(headline(page).filter({ hasText: 'Quay node two' })).toBeVisible();
  await page.getByRole('button', { name: /push to node/i }).click();
  await expect(headline(page).filter({ hasText: 'Quay node two is as planned.' })).toBeVisible();
  await undo();
  await page.getByRole('button', { name: /push to node/i }).click();
  await expect(headline(page).filter({ hasText: 'Quay node is as planned.' })).toBeVisible();
  // The form is finished: Back leads to the list, not into it.
  await back(page);
  await at(page, '/wire');
});

test('takes a lamp, sees its level leave the port, gives it back', async ({ page }) => {
  await area(page, 'Rig');
  await page
    .getByRole('link', { name: /^1\s*Wheelhouse lantern 1/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Take this lamp' }).click();
  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await page.getByRole('button', { name: 'Highlight' }).click();
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 1, 1)).toBe(255);
  await page.getByRole('button', { name: 'Give back', exact: true }).click();
  await expect(page.getByRole('status', { name: 'Live strip' })).toContainText('nothing taken');
  await back(page);
  await expect(page.getByRole('heading', { name: /Wheelhouse lantern 1 at 1\/1/ })).toBeVisible();
});

test('loses the network and gets it back; what was open stays, what was not opens', async ({
  page,
  context,
  troubles,
}) => {
  troubles.expect(/ERR_INTERNET_DISCONNECTED/);
  await page.waitForLoadState('networkidle');
  await context.setOffline(true);
  const strip = page.getByRole('status', { name: 'Live strip' });
  await expect(strip).toContainText('The server does not answer');
  await area(page, 'Wire');
  await expect(page.getByRole('link', { name: /Boiler node/ })).toBeVisible();
  await back(page);
  await at(page, '/');
  await context.setOffline(false);
  await expect(strip).toContainText('streams heard');
});

test('opens every area and the show, turns the theme, opens a second window, and is never without a way back', async ({
  page,
  context,
}) => {
  for (const name of ['Rig', 'Wire', 'Flow', 'Listen', 'Prove']) await area(page, name);
  await page.getByRole('link', { name: /this show and this computer/ }).click();
  await page.getByRole('radio', { name: 'Daylight' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'daylight');
  await page.getByRole('radio', { name: 'System' }).click();
  const second = await context.newPage();
  await second.setViewportSize(page.viewportSize()!);
  await second.goto(`${BASE}/rig/lamp-101`);
  await expect(second.getByRole('heading', { name: /101 Port spot 1/ })).toBeVisible();
  // Opened by its address there is no history: the arrow leads up to the list.
  await back(second);
  await at(second, '/rig');
  await second.close();
  for (const path of ['/prove', '/listen', '/flow', '/wire', '/rig', '/']) {
    await back(page);
    await at(page, path);
  }
  await expect(page.getByRole('button', { name: 'Back', exact: true })).toHaveCount(0);
});

test('a half-typed form is kept through Back and a reload', async ({ page }) => {
  await area(page, 'Rig');
  await page.getByRole('link', { name: /Wheelhouse lantern 4/ }).click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Half typed');
  await back(page);
  await page.goForward();
  await expect(name).toHaveValue('Half typed');
  await page.reload();
  await expect(name).toHaveValue('Half typed');
  await page.getByRole('button', { name: 'Leave as it was' }).click();
  await expect(name).toHaveValue('Wheelhouse lantern 4');
  if (isPhone(page)) await back(page);
});
