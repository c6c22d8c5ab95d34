/** Universes sent on, slots held and given back, and a visualiser linked from nothing to light on its picture. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { LiveReport } from '@taxiarch/core/whole/contract';
import { WHEELHOUSE_NODE, api, handle, levelAt, makeSafe, open, panel, standInPage, undo } from './whole';

const says = (page: Page, text: string | RegExp) => expect(page.getByText(text).first()).toBeVisible();
const routed = async (number: number) =>
  (await api<LiveReport>('/api/live')).universes
    .find((one) => one.protocol === 'sacn' && one.number === number)
    ?.streams.filter((stream) => stream.routed && !stream.lost).length ?? 0;

test.afterEach(makeSafe);

test('a universe is routed, a range held by hand, another taken from an input, both given back', async ({ page }) => {
  await open(page, '/flow/routes/new');
  await page.getByLabel('Name').fill('Purser over');
  await page.getByLabel('Universe', { exact: true }).fill('41');
  await page.getByLabel('To universe').fill('41');
  await says(page, /This route would feed itself: sACN 41 → sACN 41/);
  await page.getByLabel('To universe').fill('sACN 141');
  await page.getByRole('button', { name: 'Plan the route' }).click();
  await says(page, 'Purser over is off.');

  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await says(page, 'Taxiarch is safe. Running a route sends values to the network.');
  expect(await routed(141)).toBe(0);
  await page.getByRole('button', { name: 'Make hot and run' }).click();
  await says(page, /Purser over is running: \d+ packets a second to its multicast group/);
  await expect.poll(() => routed(141)).toBe(1);
  await expect(page.getByRole('status', { name: 'Live strip' })).toContainText('1 route running');

  await page.getByLabel('From channel').fill('1');
  await page.getByLabel('To channel').fill('4');
  await page.getByLabel('Level').fill('200');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await says(page, '1-4 held at 200');
  await page.getByRole('radio', { name: 'From an input' }).click();
  await page.getByLabel('From channel').fill('5');
  await page.getByLabel('To channel').fill('6');
  await page.getByLabel('Universe', { exact: true }).fill('1');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await says(page, /5-6 from 1 Foredeck and wheelhouse, channel 1/);
  await page.getByRole('button', { name: 'Give back 1', exact: true }).click();
  await expect(page.getByText('1-4 held at 200')).toHaveCount(0);
  await page.getByRole('button', { name: 'Give back 5', exact: true }).click();
  await says(page, 'All 512 pass through.');
  await page.getByRole('button', { name: 'Switch off' }).click();
  await says(page, 'Purser over is off.');
  await expect.poll(() => routed(141)).toBe(0);
  for (let i = 0; i < 5; i += 1) await undo();
});

test('a node and the visualiser are witnesses of what a route sends over a console', async () => {
  const wire = (number: number) => ({ protocol: 'sacn', number });
  const held = (level: number) => ({ first: 1, last: 12, by: 'hand', level, from: null });
  const route = {
    id: 'route-witness',
    rev: 0,
    name: 'Lanterns by hand',
    order: 1,
    inputs: [{ wire: wire(41), sender: '', shift: 0, priority: 100 }],
    merge: 'htp',
    returns: 'at once',
    out: wire(1),
    interface: '',
    delivery: 'usual',
    addresses: [],
    priority: 150,
    master: 255,
    parts: [held(255)],
    sync: 0,
    comesBack: false,
  };
  const write = (rev: number | null, after: object | null) =>
    api<{ seq: number }>('/api/edits', {
      author: 'the tests',
      sentence: 'Held the lanterns',
      changes: [{ kind: 'route', id: route.id, rev, after }],
    });
  const lantern = async () => {
    const { lamps } = await panel<{ lamps: { number: number }[] }>(24, 'state');
    const light = new Uint8Array(await (await fetch(`${standInPage('127.0.0.24')}light`)).arrayBuffer());
    return light[lamps.findIndex(({ number }) => number === 1) * 5]!;
  };
  const { seq } = await write(null, route);
  await api('/api/output/hot', { hot: true, by: 'the tests' });
  await api('/api/routes/run', { ids: [route.id], on: true, by: 'the tests' });
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 1, 1)).toBe(255);
  await expect.poll(lantern).toBeGreaterThan(200);
  const changed = await write(seq, { ...route, parts: [held(0)] });
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 1, 1)).toBe(0);
  await expect.poll(lantern).toBe(0);
  // Off again, the console has its universe back.
  await makeSafe();
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 1, 1)).toBeGreaterThan(0);
  await write(changed.seq, null);
});

test('a range of universes is routed in one act, and taken back', async ({ page }) => {
  await open(page, '/flow');
  await page.getByRole('button', { name: 'Route a range' }).click();
  await page.getByRole('checkbox', { name: '9 Catwalk battens' }).click();
  await page.getByRole('checkbox', { name: '10 Bar battens' }).click();
  await page.getByLabel('The first goes to').fill('sACN 209');
  const preview = page.getByRole('region', { name: 'Preview' });
  await expect(preview).toContainText('Art-Net 0.0.8 → sACN 209');
  await expect(preview).toContainText('Art-Net 0.0.9 → sACN 210');
  await page.getByRole('button', { name: 'Plan the routes' }).click();
  await says(page, 'Planned 2 routes.');
  await open(page, '/flow/routes');
  await says(page, '0 of 2 routes running.');
  await undo();
});

test('a console is linked to the visualiser from nothing to light on the picture', async ({ page, context }) => {
  await open(page, '/flow/links/new');
  await page.getByLabel('Sender', { exact: true }).selectOption('Stern desk');
  await page.getByLabel('Visualiser', { exact: true }).selectOption('Crow’s nest');
  await expect(page.getByRole('group', { name: 'Line 1' }).getByLabel('How many')).toHaveValue('6');
  await page.getByRole('button', { name: 'Add the link' }).click();
  const link = page.getByRole('list', { name: 'The doctor’s list' });
  await expect(link.getByRole('listitem')).toHaveCount(10);
  for (const question of ['The visualiser was started after the sender', 'No firewall between', 'It arrives']) {
    const well = page.getByRole('button', { name: `I looked: it is well, ${question}` });
    if (!(await well.isVisible())) continue;
    await well.click();
    await expect(link.getByRole('listitem').filter({ hasText: question })).toContainText('Mara looked');
  }
  await says(page, 'Stern desk by sACN to Crow’s nest: heard, said or seen to be fine.');

  const picture = await context.newPage();
  await picture.goto(standInPage('127.0.0.24'));
  await expect(picture.getByRole('status')).toHaveText('Receives 40 of 40 universes at 127.0.0.24.');
  const lit = await picture.evaluate(async () => {
    const bytes = new Uint8Array(await (await fetch('light')).arrayBuffer());
    return bytes.filter((byte, i) => i % 5 < 3 && byte > 40).length;
  });
  expect(lit).toBeGreaterThan(50);
  await picture.close();
  await open(page, '/flow/links');
  await page.getByRole('link', { name: 'Stern desk by sACN to Crow’s nest' }).click();
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByRole('button', { name: /^Delete / }).click();
  await page.getByRole('button', { name: /^Delete it/ }).click();
  await says(page, /^\d of 3 links said or seen to arrive\./);
});

test('the base is broken on purpose, found by the doctor, and mended', async ({ page }) => {
  await handle('crow', { faults: { base: 0 } });
  await open(page, '/flow/links/link-porthole');
  const base = page.getByRole('listitem').filter({ hasText: 'Numbering begins alike' });
  await expect(base).toContainText('listens one above what is sent: it is off by one.');
  await expect(base).toContainText('Set Crow’s nest to count from 1.');
  await page.getByRole('link', { name: /The visualiser is a stand-in/ }).click();
  const bench = page.getByRole('region', { name: 'Crow’s nest' });
  await expect(bench).toContainText(/Receives \d+ of 40 universes; not /);
  await bench.getByRole('checkbox', { name: 'Counts Art-Net from 0 instead of 1' }).click();
  await expect(bench).toContainText('Receives 40 of 40 universes.');
  await open(page, '/flow/links');
  await expect(page.getByText(/^\d of 3 links said or seen to arrive\./)).not.toContainText('to mend');
});

test('the other program has one lamp in another mode: found by comparing, and told how', async ({ page, troubles }) => {
  troubles.expect(/^409 POST \/api\/output\/take/);
  await handle('crow', { faults: { otherMode: true } });
  const patch = await (await fetch(`${standInPage('127.0.0.24')}patch.csv`)).text();
  await handle('crow', { faults: { otherMode: false } });
  await open(page, '/flow/links/compare');
  await page.getByLabel('Table to paste').fill(patch);
  await page.getByRole('button', { name: 'Read the table' }).click();
  await page.getByRole('radio', { name: '1 differ' }).click();
  await says(page, /^other mode, other footprint/);
  await page.getByRole('button', { name: 'Light both, 101 Port spot 1' }).click();
  await says(page, 'Taxiarch is safe and sends nothing. Make it hot first.');
});
