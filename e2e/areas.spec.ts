/** The other areas, the frame, and changing the show. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './fixture';
import { BRIDGE_DESK, OWN, api, handle, makeSafe, open, panel, type Served, startServer } from './whole';

/** Servers of a test's own; none outlives it, however it ends. */
const started: Served[] = [];

test.afterEach(() => started.splice(0).forEach((server) => server.kill()));

test('flow: each universe from its sender to its port', async ({ page }) => {
  await open(page, '/flow');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    '40 of 40 universes leave a port, as the ports say.',
  );
  await expect(page.getByText('→ Boiler node, port 2')).toBeVisible();
  await page.getByLabel('Only').fill('lamp 101');
  await expect(page.getByText('→ Car deck node, port 1')).toBeVisible();
  await expect(page.getByText('→ Boiler node, port 2')).toHaveCount(0);
  await page.getByRole('radio', { name: 'Picture' }).click();
  const picture = page.getByRole('group', { name: 'Picture of the flow' });
  await expect(picture.getByRole('link', { name: 'Bridge desk, 127.0.0.21' })).toBeVisible();
  await expect(picture.getByRole('link', { name: '2 Port spots, sACN 2, steady' })).toBeVisible();
  await picture.getByRole('link', { name: 'Foredeck node' }).click();
  await expect(page).toHaveURL(/\/wire\/machine-foredeck/);
});

test('flow: what goes one way stands together in the picture, and is seen one by one when it is opened', async ({
  page,
}) => {
  await open(page, '/flow');
  await page.getByRole('radio', { name: 'Picture' }).click();
  await page.getByRole('button', { name: '3-5, 7-8, 5 by sACN, steady' }).click();
  await expect(page.getByLabel('Only')).toHaveValue('3-5, 7-8');
  await expect(page.getByRole('link', { name: '4 Port wash, sACN 4, steady' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^6 Engine room/ })).toHaveCount(0);
  await page.getByRole('navigation', { name: 'Flow' }).getByRole('link', { name: 'Links' }).click();
  await expect(page.getByText(/^\d of 3 links said or seen to arrive\./)).toBeVisible();
});

test('jump: slots, lamps, machines and universes from one box', async ({ page }) => {
  await open(page, '/rig');
  const jump = async (typed: string) => {
    await page.keyboard.press('/');
    await page.getByLabel('Jump to a slot, lamp, machine or universe').fill(typed);
    await page.keyboard.press('Enter');
  };
  await page.getByRole('heading', { level: 1 }).first().click();
  await jump('3/47');
  await expect(page).toHaveURL(/\/listen\/u3\?slot=47/);
  await expect(page.getByRole('region', { name: 'Slot 47' })).toBeVisible();
  await jump('101');
  await expect(page.getByRole('heading', { name: /101 Port spot 1 at 2\/1/ })).toBeVisible();
  await jump('u12');
  await expect(page).toHaveURL(/\/listen\/u12/);
  await jump('127.0.0.32');
  await expect(page).toHaveURL(/\/wire\/machine-boiler/);
});

test('rig: search, a lamp with live values, a change, a clash, undo', async ({ page }) => {
  await open(page, '/rig');
  await page.getByLabel('Search lamps').fill('spot 16 port 2');
  await page.getByRole('link', { name: '102 Port spot 2' }).click();
  await expect(page.getByText(/Baleen Spot 16, Extended, 23 channels/)).toBeVisible();
  await panel(BRIDGE_DESK, 'fader', { universe: 2, channel: 31, level: 123 });
  await expect(page.getByText('123', { exact: true })).toBeVisible();
  await panel(BRIDGE_DESK, 'fader', { universe: 2, channel: 31, level: null });

  const address = page.getByLabel('Address, universe/channel');
  await address.fill('2/9999');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/these run from 1 to 512/)).toBeVisible();
  await address.fill('2/10');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Lamp 101 and lamp 102 overlap from 2/10.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: '102 Port spot 2 at 2/24' })).toBeVisible();
});

test('rig: somebody else changed the lamp in the meantime; what was typed is not lost', async ({ page, troubles }) => {
  troubles.expect(/^409 POST \/api\/edits/);
  await open(page, '/rig/lamp-103');
  await page.getByLabel('Name', { exact: true }).fill('Typed by me');
  const { records } = await api<{ records: { lamp: { id: string; rev: number; name: string }[] } }>('/api/show');
  const lamp = records.lamp.find(({ id }) => id === 'lamp-103')!;
  await api('/api/edits', {
    author: 'Ivo',
    sentence: 'Renamed lamp 103',
    changes: [{ kind: 'lamp', id: lamp.id, rev: lamp.rev, after: { ...lamp, name: 'Renamed by Ivo' } }],
  });
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/Ivo changed this in the meantime/)).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Typed by me');
  await page.getByRole('button', { name: 'Show it as it is now' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Renamed by Ivo');
  await api('/api/undo', { author: 'Ivo' });
});

test('listen: the field is stepped through by keys and read aloud; values in three ways of writing', async ({
  page,
}) => {
  await panel(BRIDGE_DESK, 'fader', { universe: 7, channel: 1, level: 255 });
  await open(page, '/listen/u7');
  await page.getByRole('button', { name: /^Slot 1, lamp 401/ }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('button', { name: /^Slot 1, lamp 401 Saloon sconce 1, Intensity/ })).toBeFocused();
  await expect(page.getByTestId('slot-value')).toHaveText('255');
  await page.getByRole('region', { name: 'Slot 1' }).getByRole('button', { name: 'Close' }).click();
  await page.getByRole('radio', { name: 'Hex' }).click();
  await page.getByRole('radio', { name: 'All 512' }).click();
  await page.getByRole('button', { name: /^Slot 1, / }).click();
  await expect(page.getByTestId('slot-value')).toHaveText('FF');
  await panel(BRIDGE_DESK, 'fader', { universe: 7, channel: 1, level: null });
});

test('listen: the streams of a universe, with their account', async ({ page }) => {
  await open(page, '/listen/u9');
  await page.getByRole('radio', { name: 'Streams' }).click();
  await expect(page.getByText(/^[234]\d packets in the last second/)).toBeVisible();
  await expect(page.getByText(/0 packets lost/)).toBeVisible();
});

test('show: theme, history, settings that are refused in a sentence', async ({ page }) => {
  await open(page, '/show');
  // The oldest edit stays within reach, however many came after it.
  const oldest = page.getByText('Began with the demo show, Night Ferry');
  const earlier = page.getByRole('button', { name: /^Show \d+ earlier$/ });
  await expect(async () => {
    if (await earlier.isVisible()) await earlier.click();
    await expect(oldest).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.getByRole('radio', { name: 'Daylight' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'daylight');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'daylight');
  await page.getByRole('radio', { name: 'System' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'backstage');
  await page.getByRole('link', { name: 'This computer’s interfaces' }).click();
  await expect(page.getByText('loopback, this computer only')).toBeVisible();
});

test('one place is chosen once, and every list of lamps is held to it', async ({ page }) => {
  await open(page, '/rig');
  await page.getByLabel('Place', { exact: true }).selectOption('Funnel');
  await expect(page.getByText('36 lamps')).toBeVisible();
  await page.getByRole('link', { name: 'Prove' }).click();
  await page.getByRole('button', { name: 'Choose 40 shown' }).click();
  await expect(page.getByText('40 lamps chosen.')).toBeVisible();
  await page.getByLabel('Place', { exact: true }).selectOption('All places');
  await expect(page.getByRole('button', { name: 'Choose 444 shown' })).toBeVisible();
});

test('a number in the sentence leads to what it counts', async ({ page }) => {
  await handle('porthole', { power: false });
  await open(page, '/listen');
  await page.getByRole('link', { name: '26 silent' }).click();
  await expect(page.getByRole('link', { name: /Funnel pixels/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /^8 Quay/ })).toHaveCount(0);
  await handle('porthole', { power: true });
});

test('a page opened by its own address is there, however late parts of the client come', async ({ page, troubles }) => {
  troubles.expect(/^net::ERR_FAILED GET \/parts\//);
  let asked = 0;
  const refused = new Set<string>();
  await page.route('**/parts/**', async (route) => {
    asked += 1;
    const request = route.request();
    // A part is refused when it is first asked for; the first script brings what asks again.
    if (request.resourceType() === 'fetch' && !refused.has(request.url())) {
      refused.add(request.url());
      return route.abort();
    }
    if (asked % 2 === 0) await new Promise((late) => setTimeout(late, 700));
    await route.continue();
  });
  for (const [path, heading] of [
    ['/wire/addresses/new', 'A new plan of addresses.'],
    ['/rig/exchange', 'Who may be there'],
    ['/wire/stand-ins', /^\d+ of \d+ stand-ins on\.$/],
  ] as const) {
    await open(page, path);
    await expect(page.getByRole('heading', { name: heading })).toBeVisible();
    expect(new URL(page.url()).pathname).toBe(path);
  }
  expect(refused.size).toBeGreaterThan(0);
});

test('an address that leads nowhere says so, within the frame', async ({ page }) => {
  await open(page, '/nowhere');
  await expect(page.getByText('There is no page at this address.')).toBeVisible();
  await page.getByRole('button', { name: 'How things stand' }).last().click();
  await expect(page).toHaveURL(/\/$/);
});

test('what is to stay taken stays when the device goes away', async ({ page, context }) => {
  await open(page, '/show');
  await page.getByRole('radiogroup', { name: 'Stay taken' }).getByRole('radio', { name: 'Yes' }).click();
  await page.getByRole('button', { name: 'Make hot' }).click();
  await page.getByRole('link', { name: 'Listen' }).click();
  await page.getByRole('link', { name: /^8 Quay/ }).click();
  await page.getByRole('button', { name: /^Slot 1, / }).click();
  await page.getByRole('button', { name: 'Take 8/1' }).click();
  const holds = async () => (await api<{ holds: { stay: boolean }[] }>('/api/output')).holds.map(({ stay }) => stay);
  await expect.poll(holds).toEqual([true]);
  await context.close();
  // That something is not given back shows only after the time in which it would be.
  await new Promise((done) => setTimeout(done, 6500));
  expect(await holds()).toEqual([true]);
  await makeSafe();
});

test('the server goes: the strip says so, and heals by itself when it is back', async ({ page, troubles }) => {
  troubles.expect(/^net::ERR_/, /WebSocket connection to .*feed/, /^503 /);
  const folder = mkdtempSync(join(tmpdir(), 'taxiarch-e2e-gone-'));
  const start = async () => {
    const server = await startServer({ folder, port: OWN.page, sacn: OWN.sacn, artnet: OWN.artnet });
    started.push(server);
    return server;
  };
  const strip = page.getByRole('status', { name: 'Live strip' });
  test.slow();
  const first = await start();
  await page.goto(`http://127.0.0.1:${OWN.page}/listen`);
  await expect(page.getByText('0 of 40 universes steady on the wire. 40 silent.')).toBeVisible();
  await page.waitForLoadState('networkidle');
  first.kill();
  await expect(strip).toContainText('The server does not answer. Trying again');
  // What was not opened before opens all the same, with what is known.
  await page.getByRole('link', { name: 'Wire' }).click();
  await expect(page.getByRole('link', { name: /Car deck node/ })).toBeVisible();
  await page.getByRole('link', { name: 'Prove' }).click();
  await expect(page.getByText('Choose the lamps to walk through.')).toBeVisible();
  const second = await start();
  await expect(strip).toContainText('0 streams heard');
  await second.stop();
  rmSync(folder, { recursive: true, force: true });
});
