/** The story: from the printed address to a lamp lit, seen at the node's port, and given back. */
import { expect, test } from './fixture';
import { BASE, BRIDGE_DESK, CAR_DECK_NODE, WHEELHOUSE_NODE, api, levelAt, makeSafe, open, panel } from './whole';

test.afterEach(async () => {
  await makeSafe();
  await panel(BRIDGE_DESK, 'start', {});
});

test('a stranger sees the rig, watches a slot, takes a lamp, lifts it, steps on, and gives all back', async ({
  page,
}) => {
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  await page.goto(BASE);
  // One lands on how things stand: what is heard and said is well, and nobody has looked at a lamp yet.
  await expect(page.getByRole('heading', { level: 1 }).first()).toContainText('420 of 420 lamps nobody has seen.');
  await expect(page.getByText('Night Ferry').first()).toBeVisible();
  await page.getByRole('link', { name: 'Rig' }).click();
  await expect(page.getByRole('heading', { level: 1 }).first()).toContainText(
    '420 lamps and 2956 pixels on 39 universes. No addresses collide.',
  );

  await page.getByRole('link', { name: 'Listen' }).click();
  await expect(page.getByText('40 of 40 universes steady on the wire.')).toBeVisible();
  await page.getByRole('link', { name: /Foredeck and wheelhouse/ }).click();

  // A fader moved at the desk is seen on the phone, having gone through real packets.
  await page.getByRole('button', { name: 'Slot 1, lamp 1 Wheelhouse lantern 1, Intensity' }).click();
  const sheet = page.getByRole('region', { name: 'Slot 1' });
  await expect(sheet).toContainText('Intensity');
  await expect(sheet).toContainText('Bridge desk');
  for (const level of [17, 203]) {
    await panel(BRIDGE_DESK, 'fader', { universe: 1, channel: 1, level });
    await expect(page.getByTestId('slot-value')).toHaveText(String(level));
  }
  await panel(BRIDGE_DESK, 'fader', { universe: 1, channel: 1, level: null });

  await page.goto(`${BASE}/prove`);
  await page.getByLabel('Search by number or name').fill('port spot');
  await page.getByRole('checkbox', { name: '101 Port spot 1' }).click();
  await page.getByRole('checkbox', { name: '102 Port spot 2' }).click();
  await page.getByRole('button', { name: 'Walk' }).click();
  await expect(page.getByRole('heading', { name: '101 Port spot 1' })).toBeVisible();
  await expect(page.getByTestId('frame-safe')).toBeVisible();

  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await expect(page.getByText(/safe and sends nothing/)).toBeVisible();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await expect(page.getByTestId('frame-hot')).toBeVisible();
  await expect(page.getByRole('status', { name: 'Live strip' })).toContainText('23 slots to 2/1–23');

  await page.getByLabel('Intensity', { exact: true }).fill('43690');
  await expect.poll(() => levelAt(CAR_DECK_NODE, 1, 6)).toBe(170);
  await expect.poll(() => levelAt(CAR_DECK_NODE, 1, 7)).toBe(170);

  await page.getByRole('button', { name: 'Next lamp' }).click();
  await expect(page.getByRole('heading', { name: '102 Port spot 2' })).toBeVisible();
  await expect.poll(() => levelAt(CAR_DECK_NODE, 1, 29)).toBe(170);
  await page.getByRole('button', { name: 'Highlight' }).click();
  await expect.poll(() => levelAt(CAR_DECK_NODE, 1, 29)).toBe(255);

  await page.getByRole('button', { name: 'Give back all' }).click();
  await expect(page.getByRole('status', { name: 'Live strip' })).toContainText('nothing taken');
  await expect.poll(() => levelAt(CAR_DECK_NODE, 1, 29)).not.toBe(255);
  await page.getByRole('button', { name: 'Make safe' }).click();
  await expect(page.getByTestId('frame-safe')).toBeVisible();
  expect(faults).toEqual([]);
});

test('one slot is taken from its sheet, set by number, and given back; the sheet says why it is as it is', async ({
  page,
}) => {
  await open(page, '/listen/u1?slot=2');
  await page.getByRole('button', { name: 'Take 1/2' }).click();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await page.getByLabel('Level of 1/2, as a number').fill('99');
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 1, 2)).toBe(99);
  await expect(page.getByTestId('slot-value')).toHaveText('99');
  await expect(page.getByText(/Taxiarch wins with priority 150, above Bridge desk with 100/)).toBeVisible();
  // The slots beside it are not fought over.
  await panel(BRIDGE_DESK, 'fader', { universe: 1, channel: 3, level: 31 });
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 1, 3)).toBe(31);
  await panel(BRIDGE_DESK, 'fader', { universe: 1, channel: 3, level: null });
  await page.getByRole('button', { name: 'Give back', exact: true }).click();
  await expect(page.getByText(/Bridge desk is the only one that controls it/)).toBeVisible();
});

test('a run of slots is taken by number and stepped along, by Art-Net', async ({ page }) => {
  await open(page, '/prove');
  await page.getByRole('radio', { name: 'Slots' }).click();
  const run = page.getByLabel('One slot or a run');
  await run.fill('12/900');
  await expect(page.getByText(/run from 1 to 512/)).toBeVisible();
  await run.fill('12/1-4');
  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await expect(page.getByText(/Art-Net has no priority/)).toBeVisible();
  // Beside others that list it, in the order in which they answered first.
  await expect(page.getByText(/Goes to .*Wheelhouse node/)).toBeVisible();
  await page.getByRole('button', { name: 'Next slot' }).click();
  await expect(page.getByText('12/2 at 255')).toBeVisible();
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 2, 2)).toBe(255);
  await page.getByRole('button', { name: 'Give back', exact: true }).click();
  await expect.poll(() => levelAt(WHEELHOUSE_NODE, 2, 2)).not.toBe(255);
});

test('when the person goes away, what was taken is given back', async ({ page, context }) => {
  await open(page, '/listen/u1?slot=2');
  await page.getByRole('button', { name: 'Take 1/2' }).click();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await expect.poll(async () => (await api<{ holds: unknown[] }>('/api/output')).holds.length).toBe(1);
  await context.close();
  await expect.poll(async () => (await api<{ holds: unknown[] }>('/api/output')).holds.length).toBe(0);
});

test('the desk stops, and the universes are said to be silent; it returns, and they heal', async ({ page }) => {
  await open(page, '/listen');
  await panel(BRIDGE_DESK, 'stop', {});
  await expect(page.getByText(/^[0-9]+ of 40 universes steady on the wire.*silent/)).toBeVisible();
  await expect(page.getByText(/^34 of 40 universes steady on the wire. 6 silent/)).toBeVisible();
  await panel(BRIDGE_DESK, 'start', {});
  await expect(page.getByText('40 of 40 universes steady on the wire.')).toBeVisible();
});
