/** The network in hand: machines found, drifted, pushed, adopted; settings given; addresses mended. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { StandIn } from '@taxiarch/core/whole/contract';
import type { Machine, Snapshot } from '@taxiarch/core/show/records';
import { PERSON, api, handle, makeSafe, open, panel, undo } from './whole';

const records = async () => (await api<{ records: { machine: Machine[]; snapshot: Snapshot[] } }>('/api/show')).records;
const machine = async (id: string) => (await records()).machine.find((one) => one.id === id);
const addressOf = async (id: string) => (await machine(id))!.interfaces[0]!.addresses[0]!.address;
const box = async (id: string) => (await api<StandIn[]>('/api/stand-ins')).find((one) => one.id === id)!;
const says = (page: Page, text: string | RegExp) => expect(page.getByText(text).first()).toBeVisible();
/** A machine's row in the list, which on a phone is a page of its own. */
const state = (page: Page, name: string) => page.getByRole('link', { name: new RegExp(`^${name} `) });

test.afterEach(makeSafe);

test('every machine, planned and heard, with the word that says how it stands', async ({ page }) => {
  await handle('crow', { power: false });
  await open(page, '/wire');
  await expect(page.getByText('16 of 17 machines matched; 1 missing.')).toBeVisible();
  for (const name of ['Bridge desk', 'Wheelhouse node', 'Car deck node', 'Saloon node', 'Funnel cord driver'])
    await expect(state(page, name)).toContainText('matched');
  await expect(state(page, 'Crow’s nest')).toContainText('missing');
  await handle('crow', { power: true });
  await page.getByLabel('Which machines').selectOption('missing');
  await expect(state(page, 'Boiler node')).toHaveCount(0);
  await page.getByLabel('Which machines').selectOption('');
  await page.getByLabel('Search machines').fill('quad 0.32');
  await expect(state(page, 'Wheelhouse node')).toHaveCount(0);
  await state(page, 'Boiler node').click();
  await says(page, 'Boiler node is as planned.');
  await expect(page.getByRole('listitem', { name: 'Port 2, out, universe 9' })).toContainText('sends');
});

test('a hand turns a node away from its plan; a push brings it back, and the way it was can be put back', async ({
  page,
}) => {
  await open(page, '/wire/stand-ins');
  const bench = page.getByRole('region', { name: 'Car deck node' });
  await bench.getByRole('button', { name: /^Open/ }).click();
  await bench.getByLabel('Number on the wire').fill('9');
  await bench.getByRole('button', { name: 'Turn' }).click();
  await expect(bench).toContainText('out · sACN 9');
  await handle('car-deck', { turn: { name: 'Box 8', port: 2, settings: { merge: 'ltp' } } });

  await open(page, '/wire/machine-car-deck');
  await says(page, 'Car deck node: 3 settings differ from the plan.');
  const table = page.getByRole('table', { name: 'What differs' });
  await expect(table).toContainText(/Port 1, universesACN 2sACN 9/);
  await page.getByRole('button', { name: 'Make hot and push to node' }).click();
  await says(page, 'Car deck node is as planned.');
  await expect(page.getByText('done', { exact: true }).nth(2)).toBeVisible();
  expect((await box('car-deck')).ports[0]).toMatchObject({ wire: 2 });

  // How it was before is kept by itself, and goes back the same way.
  const kept = (await records()).snapshot.find(({ name }) => name === 'Car deck node before the push')!;
  expect(kept.ports[1]).toMatchObject({ merge: 'ltp' });
  await open(page, '/wire/kept');
  const card = page.getByRole('listitem', { name: kept.name }).first();
  await card.getByRole('button', { name: 'Put back' }).click();
  await says(page, 'What the push did');
  await expect.poll(async () => (await box('car-deck')).ports[1]!.merge).toBe('ltp');
  await api('/api/nodes/push', { machineIds: ['machine-car-deck'] });
  await expect.poll(async () => (await box('car-deck')).ports[1]!.merge).toBe('htp');
  const { snapshot } = await records();
  await api('/api/edits', {
    author: 'Ivo',
    sentence: 'Cleared the snapshots',
    changes: snapshot.map(({ id, rev }) => ({ kind: 'snapshot', id, rev, after: null })),
  });
});

test('what differs is taken into the plan instead, and taken back', async ({ page }) => {
  await handle('boiler', { turn: { name: 'Bilge node', mask: '255.255.0.0' } });
  await open(page, '/wire/machine-boiler');
  await says(page, 'Boiler node: 2 settings differ from the plan.');
  await page.getByRole('button', { name: 'Adopt' }).first().click();
  await page.getByRole('region', { name: 'Preview' }).getByRole('button', { name: 'Adopt' }).click();
  await says(page, 'Bilge node is as planned.');
  expect(await machine('machine-boiler')).toMatchObject({ name: 'Bilge node' });
  await page.getByRole('button', { name: 'Undo' }).click();
  await says(page, 'Boiler node: 2 settings differ from the plan.');
  await handle('boiler', { turn: { name: 'Boiler node', mask: '255.0.0.0' } });
  await says(page, 'Boiler node is as planned.');
});

test('safe sends nothing: a push is refused, and a locked machine is left alone', async () => {
  const refused = await api<{ detail: string }>('/api/nodes/push', { machineIds: ['machine-boiler'] });
  expect(refused.detail).toBe('Taxiarch is safe and sends nothing. Make it hot to push to nodes.');
  const boiler = (await machine('machine-boiler'))!;
  await api('/api/edits', {
    author: PERSON,
    sentence: 'Locked the Boiler node',
    changes: [{ kind: 'machine', id: boiler.id, rev: boiler.rev, after: { ...boiler, locked: true } }],
  });
  await api('/api/output/hot', { hot: true, by: 'the tests' });
  const { results } = await api<{ results: { trouble: string }[] }>('/api/nodes/push', {
    machineIds: ['machine-boiler', 'machine-weave', 'machine-foredeck'],
  });
  expect(results.map(({ trouble }) => trouble)).toEqual([
    'Boiler node is locked. Unlock it first.',
    'Deck switch does not answer. Look at its power and its cable.',
    '',
  ]);
  await undo();
});

test('a stranger is switched on, adopted as it is, and forgotten again', async ({ page }) => {
  await handle('spare', { power: true });
  await open(page, '/wire');
  await expect(state(page, 'Spare')).toContainText('stranger');
  await state(page, 'Spare').click();
  await says(page, 'Spare is in no plan.');
  await page.getByRole('button', { name: 'Adopt' }).click();
  await says(page, 'Spare is as planned.');
  const adopted = (await records()).machine.find(({ name }) => name === 'Spare')!;
  expect(adopted.ports).toHaveLength(16);
  expect(adopted).toMatchObject({ firmware: '1.7', interfaces: [{ mac: '02:7f:f2:00:00:3f' }] });
  await undo();
  await open(page, '/wire/127.0.0.63');
  await says(page, 'Spare is in no plan.');
  await handle('spare', { power: false });
});

test('a node shows itself by its lights, and stops', async ({ page }) => {
  await open(page, '/wire/machine-saloon');
  await page.getByRole('button', { name: 'Locate' }).click();
  await expect.poll(async () => (await box('saloon')).locating).toBe(true);
  await page.getByRole('button', { name: 'Stop locating' }).click();
  await expect.poll(async () => (await box('saloon')).locating).toBe(false);
});

test('settings for three nodes: two take them, one cannot and says why; undone', async ({ page }) => {
  await open(page, '/wire/kept');
  for (const name of ['Wheelhouse node', 'Boiler node', 'Foredeck node'])
    await page.getByRole('checkbox', { name, exact: true }).click();
  await page.getByLabel('Settings', { exact: true }).selectOption({ label: 'Starting point: Two desks together' });
  await page.getByLabel('First universe').fill('5');
  await says(page, 'Foredeck node is left as it is. Marram Pair 2 cannot merge.');
  await page.getByRole('button', { name: 'Give to 2 machines' }).click();
  await says(page, 'Gave “Two desks together” to 2 machines.');
  expect((await machine('machine-wheelhouse'))!.ports.map(({ universe }) => universe)).toEqual([5, 6, 7, 8]);
  expect((await machine('machine-foredeck'))!.ports.map(({ universe }) => universe)).toEqual([1, 2]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => (await machine('machine-wheelhouse'))!.ports.map(({ universe }) => universe))
    .toEqual([1, 12, 1, 1]);
});

test('ports are set many at once, and what the model cannot do is said before', async ({ page }) => {
  await open(page, '/wire/ports/machine-car-deck');
  for (const port of [7, 8]) await page.getByRole('checkbox', { name: new RegExp(`^Port ${port},`) }).click();
  await page.getByLabel('Use', { exact: true }).selectOption('out');
  await page.getByLabel('First universe').fill('13');
  await page.getByLabel('Step').fill('28');
  await page.getByLabel('When signal is lost').selectOption('fade');
  await page.getByLabel('Fade, seconds').fill('3');
  await says(page, 'Car deck node, port 8, universe');
  await page.getByRole('button', { name: 'Set 2 ports' }).click();
  await expect.poll(async () => (await machine('machine-car-deck'))!.ports[7]!.universe).toBe(41);
  await undo();

  await open(page, '/wire/ports/machine-foredeck');
  await page.getByRole('checkbox', { name: /^Port 1,/ }).click();
  // Only what the model can do is offered; what is asked of it otherwise is refused before anything is pushed.
  await expect(page.getByLabel('Merge', { exact: true }).getByRole('option')).toHaveText(['as they are', 'no merge']);
  await page.getByRole('radio', { name: 'RDM on' }).click();
  await says(page, 'Marram Pair 2 has no RDM.');
  await expect(page.getByRole('button', { name: 'Set 1 port' })).toHaveCount(0);
});

test('the same address twice is found, mended by a repair, and taken back', async ({ page }) => {
  await open(page, '/wire/change/machine-weave');
  await page.getByLabel('Address 1').fill('127.0.0.21');
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText(
    'Bridge desk and Deck switch both have the address 127.0.0.21.',
  );
  await page.getByRole('button', { name: 'Change the machine' }).click();
  await expect.poll(() => addressOf('machine-weave')).toBe('127.0.0.21');
  await open(page, '/wire/findings');
  await says(page, /1 finding/);
  await page.getByRole('button', { name: 'Mend' }).click();
  await page.getByRole('button', { name: 'Give Deck switch 127.0.0.11' }).last().click();
  await says(page, 'The plan of the network has no faults.');
  await expect.poll(() => addressOf('machine-weave')).toBe('127.0.0.11');
  await undo();
  await undo();
  await says(page, 'The plan of the network has no faults.');
});

test('addresses by a scheme, filled in after a look; can A reach B', async ({ page }) => {
  await open(page, '/wire/addresses/new');
  await page.getByRole('button', { name: '10.0.0.0/8' }).click();
  await page.getByRole('button', { name: 'Make the plan' }).click();
  await says(page, 'Art-Net’s second range');
  await page.getByRole('button', { name: 'Fill in' }).last().click();
  const preview = page.getByRole('region', { name: 'Preview' });
  await expect(preview).toContainText('Bridge desk');
  await expect(preview).toContainText('10.0.0.1 / 255.0.0.0');
  await undo();

  await open(page, '/wire/reach');
  await page.getByLabel('From', { exact: true }).selectOption({ label: 'Bridge desk' });
  await page.getByLabel('To', { exact: true }).selectOption({ label: 'Boiler node' });
  await says(page, 'Yes: 127.0.0.21 and 127.0.0.32 are in one network, by both masks.');
  await says(page, /The mask of 127\.0\.0\.21 keeps the first number/);
});

test('this computer: its interfaces, one chosen for Art-Net alone, and what stands against it', async ({ page }) => {
  await open(page, '/wire/here');
  await says(page, 'Taxiarch listens on 127.0.0.1.');
  await page.getByLabel('For Art-Net').selectOption('plan');
  await expect
    .poll(() => api<object>('/api/settings'))
    .toMatchObject({ interface: '127.0.0.1', artnetInterface: 'plan' });
  await says(page, /In use: sACN 127\.0\.0\.1, Art-Net 127\.0\.0\.1/);
  await page.getByLabel('For Art-Net').selectOption('same');
  await expect.poll(() => api<object>('/api/settings')).toMatchObject({ artnetInterface: 'same' });
  await says(page, /New-NetFirewallRule/);
});

test('a cable is pulled and put back: the node is missing, then matched again', async ({ page }) => {
  test.slow();
  await open(page, '/wire/machine-foredeck');
  await says(page, 'Foredeck node is as planned.');
  await handle('foredeck', { plugged: false });
  await says(page, 'Foredeck node does not answer any more.');
  await handle('foredeck', { plugged: true });
  await says(page, 'Foredeck node is as planned.');
  expect(await panel<unknown[]>(35, 'ports')).toHaveLength(2);
});
