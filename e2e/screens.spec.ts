/** Pictures of the main views for docs/screenshots, from the demo show. Made by `npm run screens`. */
import { join, resolve } from 'node:path';
import { test } from '@playwright/test';
import { nightOf } from '@taxiarch/core/practise';
import { api, handle, makeSafe, open } from './whole';

const FOLDER = resolve(__dirname, '../docs/screenshots');
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

/** Name, size, address. */
const VIEWS = [
  ['stand', PHONE, '/'],
  ['stand-wide', WIDE, '/'],
  ['why', PHONE, '/why?kind=lamp&id=lamp-101'],
  ['rig', PHONE, '/rig'],
  ['rig-plan', PHONE, '/rig/plan'],
  ['listen', PHONE, '/listen'],
  ['slot', PHONE, '/listen/u7?slot=40'],
  ['wire', PHONE, '/wire'],
  ['flow', PHONE, '/flow'],
  ['show', PHONE, '/show'],
] as const;

for (const [name, viewport, path] of VIEWS)
  test(name, async ({ page }) => {
    await page.setViewportSize(viewport);
    await open(page, path);
    await page.waitForTimeout(1500);
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
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

test('machines that drifted', async ({ page }) => {
  const turn = (settings: object) => api('/api/stand-ins/handle', { id: 'car-deck', turn: settings });
  await turn({ port: 2, wire: 9, mask: '255.255.0.0', settings: { merge: 'ltp' } });
  await page.setViewportSize(PHONE);
  await open(page, '/wire/machine-car-deck');
  await page.getByText('3 settings differ from the plan').waitFor({ timeout: 20_000 });
  await page.screenshot({ path: join(FOLDER, 'wire-machine.png') });
  await page.setViewportSize(WIDE);
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(FOLDER, 'wire-wide.png') });
  await turn({ port: 2, wire: 3, mask: '255.0.0.0', settings: { merge: 'htp' } });
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
  test('listen, daylight', async ({ page }) => {
    await page.setViewportSize(PHONE);
    await open(page, '/listen/u2?slot=3');
    await page.waitForTimeout(1200);
    await page.screenshot({ path: join(FOLDER, 'slot-daylight.png') });
  });
});

test('the picture of the flow', async ({ page }) => {
  await page.setViewportSize(WIDE);
  await open(page, '/flow');
  await page.getByRole('radio', { name: 'Picture' }).click();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(FOLDER, 'flow-wide.png') });
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

test('the doctor of a link', async ({ page }) => {
  await handle('crow', { faults: { base: 0 } });
  await page.setViewportSize(PHONE);
  await open(page, '/flow/links/link-porthole');
  await page.getByText('it is off by one').first().waitFor({ timeout: 20_000 });
  await page.screenshot({ path: join(FOLDER, 'flow-link.png') });
  await handle('crow', { faults: { base: 1 } });
});
