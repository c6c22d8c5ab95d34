/** Pictures of the main views for docs/screenshots, from the demo show. Made by `npm run screens`. */
import { join, resolve } from 'node:path';
import { test } from './fixture';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { lampTable } from '@taxiarch/core/files/format';
import { writeSheet } from '@taxiarch/core/files/format/sheets';
import { nightOf } from '@taxiarch/core/truth/practise';
import { PLAIN_MACHINE, PLAIN_PORT, type Machine } from '@taxiarch/core/show/records';
import { api, handle, makeSafe, open, PERSON, settings, UDP, undo } from './whole';

const FOLDER = resolve(__dirname, '../docs/screenshots');
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

/** Name, size, address. */
const VIEWS = [
  ['stand', PHONE, '/'],
  ['why', PHONE, '/why?kind=lamp&id=lamp-101'],
  ['rig', PHONE, '/rig'],
  ['rig-plan', PHONE, '/rig/plan'],
  ['listen', PHONE, '/listen'],
  ['slot', PHONE, '/listen/u7?slot=40'],
  ['wire', PHONE, '/wire'],
  ['flow', PHONE, '/flow'],
] as const;

for (const [name, viewport, path] of VIEWS)
  test(name, async ({ page }) => {
    await page.setViewportSize(viewport);
    await open(page, path);
    await page.waitForTimeout(1500);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
  });

test('a file that arrives', async ({ page }) => {
  const { heads, rows } = lampTable(nightFerry());
  const changed = rows.slice(0, 40).map((row, i) => {
    const cells = [...row];
    if (i === 3) cells[1] = 'Wheelhouse lamp, port';
    if (i === 5) cells[5] = '1/40';
    if (i === 8) cells[3] = 'Lantern';
    if (i === 9) cells[5] = 'none';
    return cells;
  });
  await page.setViewportSize(PHONE);
  await open(page, '/rig/files');
  await page.setInputFiles('input[type=file]', {
    name: 'wheelhouse v2.xlsx',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(writeSheet(heads, changed, 'Wheelhouse', 'xlsx')),
  });
  await page.getByRole('button', { name: /^Import \d+ row/ }).waitFor();
  await page.screenshot({ path: join(FOLDER, 'arrival.png') });
  await page.getByRole('button', { name: 'Leave it' }).click();
});

test('practise, at its end', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await open(page, '/');
  await api('/api/practice/begin', { author: 'Mara', count: 2, hard: 'easy', number: 50 });
  const [one] = nightOf(50, 2, 'easy');
  await open(page, '/wire');
  await page.waitForTimeout(2500);
  await api('/api/practice/hint', {});
  await api('/api/practice/name', { about: one!.at, cause: one!.causes[0] });
  await api('/api/practice/end', {});
  await open(page, '/practise');
  await page.waitForTimeout(1000);
  await page.screenshot({ path: join(FOLDER, 'practise.png') });
});

test('the roll call, and matching by eye', async ({ page }) => {
  test.slow();
  const rig = (hand: object) => handle('rig', { rig: hand });
  await rig({ lamps: ['703'], address: 90 });
  await rig({ lamps: ['705'], mode: 1 });
  await rig({ lamps: ['9'], faults: { missing: true } });
  await page.setViewportSize(PHONE);
  await open(page, '/prove/roll');
  await page.getByRole('button', { name: 'Call the roll' }).click();
  await page.getByText(/^How all are set is known|^Called/).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(FOLDER, 'roll.png') });
  await page.getByText(/^Called/).waitFor({ timeout: 90_000 });
  await api('/api/output/hot', { hot: true, by: 'Ivo' });
  const lampIds = Array.from({ length: 18 }, (_, i) => `lamp-${701 + i}`);
  await api('/api/eye/begin', { by: 'Ivo', how: 'asked', lampIds, forget: 'all' });
  await open(page, '/prove/eye');
  for (let i = 0; i < 4; i += 1) {
    await page.waitForTimeout(600);
    await page.getByRole('button', { name: /^It is/ }).click();
  }
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(FOLDER, 'by-eye.png') });
  await api('/api/eye/end', {});
  await makeSafe();
  await handle('rig', { reset: true });
});

test('prove, hot', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await open(page, '/rig/lamp-101');
  await page.getByRole('button', { name: 'Take this lamp' }).click();
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
  test('the walk, daylight', async ({ page }) => {
    const lampIds = Array.from({ length: 18 }, (_, i) => `lamp-${701 + i}`);
    const after = {
      ...{
        id: 'walk-wings',
        rev: 0,
        name: 'Bridge wings',
        by: 'Mara',
        at: new Date().toISOString(),
        unit: 'lamp',
        lampIds,
      },
      ...{ covers: { kind: 'chosen', id: '', part: '' }, order: 'number', pictures: ['full', 'colours'] },
    };
    await api('/api/edits', {
      ...{ author: 'Ivo', sentence: 'Began a walk' },
      changes: [{ kind: 'walk', id: after.id, rev: null, after }],
    });
    await api('/api/output/hot', { hot: true, by: 'Ivo' });
    await page.setViewportSize(PHONE);
    await open(page, `/prove/walks/${after.id}`);
    await page.getByRole('button', { name: 'Walk on' }).click();
    for (const name of ['Proved', 'Proved', 'Failed', 'Wrong colour']) {
      await page.waitForTimeout(900);
      await page.getByRole('button', { name, exact: true }).click();
    }
    await page.waitForTimeout(1600);
    await page.screenshot({ path: join(FOLDER, 'walk.png') });
    await makeSafe();
  });
});

test('the record of proof', async ({ page }) => {
  await page.setViewportSize(WIDE);
  await open(page, '/prove/proof');
  await page.getByLabel('Role').fill('Lighting network technician');
  await page.getByLabel('In words').fill('Seen from the quay, with the doors shut.');
  await page.getByRole('button', { name: 'Sign it' }).click();
  await page
    .getByText(/SHA-256/)
    .first()
    .waitFor({ timeout: 30_000 });
  await page.waitForTimeout(500);
  await page.getByRole('heading', { level: 1 }).scrollIntoViewIfNeeded();
  await page.screenshot({ path: join(FOLDER, 'proof.png') });
});

test('what if', async ({ page }) => {
  await page.setViewportSize(WIDE);
  await open(page, '/prove/what-if');
  await page.getByLabel('What happens').first().selectOption({ label: 'A place loses power' });
  await page.getByLabel('For, s').fill('6');
  await page.getByRole('button', { name: 'Put it on the time line' }).click();
  await page.getByText('The worst first').waitFor();
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(FOLDER, 'what-if.png') });
});

test('a route with three owners in one universe', async ({ page }) => {
  const wire = (number: number) => ({ protocol: 'sacn', number });
  const part = { first: 13, last: 18, by: 'hand', level: 190, from: null };
  const other = { first: 19, last: 24, by: 'input', level: 0, from: { wire: wire(41), channel: 1 } };
  const after = {
    id: 'route-foredeck',
    rev: 0,
    name: 'Foredeck again',
    order: 1,
    inputs: [{ wire: wire(1), sender: '', shift: 0, priority: 100 }],
    merge: 'htp',
    returns: 'at once',
    out: wire(101),
    interface: '',
    delivery: 'usual',
    addresses: [],
    priority: 100,
    master: 255,
    parts: [part, other],
    sync: 0,
    comesBack: false,
  };
  await api('/api/edits', {
    author: 'Ivo',
    sentence: 'Planned a route',
    changes: [{ kind: 'route', id: after.id, rev: null, after }],
  });
  await api('/api/output/hot', { hot: true, by: 'Ivo' });
  await api('/api/routes/run', { ids: [after.id], on: true, by: 'Ivo' });
  await page.setViewportSize(PHONE);
  await open(page, `/flow/routes/${after.id}`);
  await page.waitForTimeout(2000);
  await page.screenshot({ path: join(FOLDER, 'flow-route.png') });
  await makeSafe();
  await api('/api/undo', { author: 'Ivo' });
});

test('the rig handed over live', async ({ page }) => {
  await page.setViewportSize(PHONE);
  await settings({ stations: true, citp: true });
  await open(page, '/rig/exchange');
  await page
    .getByText(/it told \d+ lamps/)
    .first()
    .waitFor();
  await page.getByText('joined').nth(1).waitFor();
  await page.screenshot({ path: join(FOLDER, 'exchange.png') });
  await settings({ stations: false, citp: false });
});

test('an adapter at both ends', async ({ page }) => {
  await page.setViewportSize(PHONE);
  const machine: Machine = {
    ...PLAIN_MACHINE,
    ...{ id: 'chart-plug', rev: 0, name: 'Chart room plug', kind: 'USB adapter', placeId: null },
    ports: [{ ...PLAIN_PORT, number: 1, use: 'out', protocol: 'sacn', universe: 2, rate: 44 }],
    line: { at: `127.0.0.46:${UDP.plug}`, slots: 512, routeId: null },
  };
  const changes = [{ kind: 'machine', id: machine.id, rev: null, after: machine }];
  await api('/api/edits', { author: PERSON, sentence: 'Added the adapter', changes });
  await open(page, '/wire/adapters/chart-plug');
  await page.getByRole('button', { name: 'Make hot and send' }).click();
  await page.getByText(/^Chart room plug sends/).waitFor();
  await page.getByText(/here and on the line/).waitFor();
  await page.screenshot({ path: join(FOLDER, 'adapter.png') });
  await makeSafe();
  await undo();
});
