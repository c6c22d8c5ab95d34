/** The rig in hand: lamps added, colliding, mended and taken back; types, pixels, the plan, files in and out. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import { api, makeSafe, open, undo } from './whole';

interface Lamp {
  readonly id: string;
  readonly number: number;
  readonly name: string;
  readonly universe: number;
  readonly channel: number;
  readonly x: number;
  readonly y: number;
  readonly mode: string;
}
const lamps = async (): Promise<Lamp[]> => (await api<{ records: { lamp: Lamp[] } }>('/api/show')).records.lamp;
const lamp = async (number: number): Promise<Lamp | undefined> => (await lamps()).find((one) => one.number === number);
const sentence = (page: Page, text: string | RegExp) => expect(page.getByText(text).first()).toBeVisible();

test('lamps are added with all addresses shown before, and taken back', async ({ page }) => {
  await open(page, '/rig/add');
  await page.getByLabel('Search types').fill('16 spot baleen');
  await page.getByRole('button', { name: 'Baleen Spot 16' }).click();
  await page.getByLabel('Mode', { exact: true }).selectOption({ label: 'Extended, 23 channels' });
  await page.getByLabel('Name, # is the running number').fill('Mast spot #');
  await page.getByLabel('Begin at').fill('8/480');
  const preview = page.getByRole('region', { name: 'Preview' }).last();
  await expect(preview).toContainText('Mast spot 1');
  await expect(preview).toContainText('8/480');
  // The second would be cut by the end of universe 8, and universe 9 is full.
  await expect(preview).toContainText('9/457');
  expect(await lamps()).toHaveLength(420);
  await page.getByRole('button', { name: 'Add 4 lamps' }).click();
  await sentence(page, 'Added 4 lamps of Baleen Spot 16.');
  expect(await lamps()).toHaveLength(424);
  await page.getByRole('button', { name: 'Undo' }).click();
  await sentence(page, 'Undid: Added 4 lamps of Baleen Spot 16.');
  expect(await lamps()).toHaveLength(420);
});

test('a lamp put on another collides; the finding is mended by a repair, and undone', async ({ page }) => {
  await open(page, '/rig/universes/2');
  await page.getByLabel(/^Lamp in hand/).selectOption({ label: '103 Port spot 3, 2/47' });
  await page.getByRole('button', { name: 'Slot 11, 101 Port spot 1' }).click();
  await sentence(page, 'Lamp 101 and lamp 103 overlap from 2/11.');
  await page.getByRole('button', { name: 'Move it here' }).click();
  await sentence(page, 'Moved lamp 103 to 2/11.');
  await open(page, '/rig/findings');
  await sentence(page, '2 faults in the patch.');
  await page.getByRole('button', { name: 'Mend' }).first().click();
  await page.getByRole('radio', { name: 'Make lamps 101 and 103 twins' }).click();
  await page.getByRole('radio', { name: 'Move lamp 103 to the next free place' }).click();
  await page.getByRole('button', { name: 'Move lamp 103 to the next free place' }).click();
  await sentence(page, 'The patch has no faults.');
  expect(await lamp(103)).toMatchObject({ universe: 2, channel: 47 });
  await undo();
  expect(await lamp(103)).toMatchObject({ channel: 11 });
  await undo();
  expect(await lamp(103)).toMatchObject({ channel: 47 });
});

test('a lamp is dragged from slot to slot, and tapped there as well', async ({ page }) => {
  await open(page, '/rig/universes/8');
  const slot = (number: number) => page.getByRole('button', { name: new RegExp(`^Slot ${number}, `) });
  const preview = page.getByRole('region', { name: 'Preview' });
  await slot(1).dragTo(slot(201));
  await expect(preview).toContainText('8/201');
  await page.getByRole('button', { name: 'Leave it' }).click();
  await expect(preview).toHaveCount(0);
  await slot(1).click();
  await slot(202).click();
  await expect(preview).toContainText('8/202');
  // On a wide screen a lamp of the list beside it can be dragged there too.
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page
    .getByRole('link', { name: /^1 Wheelhouse lantern 1|Wheelhouse lantern 1/ })
    .first()
    .dragTo(slot(203));
  await expect(preview).toContainText('8/203');
  expect(await lamp(501)).toMatchObject({ universe: 8, channel: 1 });
});

test('a selection is addressed in the order in which it was chosen, and its switches are shown', async ({ page }) => {
  await open(page, '/rig');
  await page.getByRole('button', { name: 'Choose lamps' }).click();
  await page.getByLabel('Search lamps').fill('quay lamp post');
  for (const number of [503, 501]) await page.getByRole('checkbox', { name: `Lamp ${number} ` }).click();
  await page.getByRole('button', { name: 'Change 2' }).click();
  await sentence(page, /In this order: 503 at 8\/3, 501 at 8\/1/);
  await page.getByLabel('Begin at').fill('8/400');
  await page.getByRole('button', { name: 'Give new addresses' }).click();
  await sentence(page, 'Addressed 2 lamps from 8/400 on.');
  expect([(await lamp(503))?.channel, (await lamp(501))?.channel]).toEqual([400, 401]);
  await page.getByRole('button', { name: 'Switches' }).click();
  // 400 = 256 + 128 + 16
  await expect(
    page.getByRole('img', { name: '1 off, 2 off, 3 off, 4 off, 5 on, 6 off, 7 off, 8 on, 9 on' }),
  ).toBeVisible();
  await undo();
});

test('a type is changed: its slots follow, lamps are named, and a mode in use stays', async ({ page }) => {
  await open(page, '/rig/types/type-haze');
  await page.getByRole('button', { name: 'Add a channel' }).click();
  await expect(page.getByRole('heading', { level: 1 }).filter({ hasText: 'Sea Fret: 3 channels' })).toBeVisible();
  await sentence(page, 'Standard, 3 channels');
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText('361 Bilge haze 1');
  await sentence(page, /Lamp 361 and lamp 362 overlap/);
  await page.getByRole('button', { name: 'Add a mode' }).click();
  await page.getByLabel('Mode', { exact: true }).selectOption({ label: 'Standard' });
  await page.getByRole('button', { name: 'Remove this mode' }).click();
  await sentence(page, /Mode “Standard” is used by lamps 361, 362, 363 and 1 more/);
  await page.getByRole('button', { name: 'Leave as it was' }).click();
  await sentence(page, 'Marram Sea Fret: 2 channels.');
});

test('pixels: the table, a run that is too long, and the run in Listen', async ({ page }) => {
  await open(page, '/rig/pixels');
  await sentence(page, '2956 pixels in 24 runs, 11692 channels.');
  await page.getByRole('link', { name: '801 Funnel rim' }).last().click();
  await page.getByLabel('Pixels', { exact: true }).fill('172');
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText('13/1 – 14/6');
  await page.getByRole('button', { name: 'Change the run' }).click();
  await sentence(page, 'Changed run 801 Funnel rim.');
  await open(page, '/rig/pixels');
  await sentence(page, /Output 1 of Funnel cord driver drives 450 channels; 519 are planned, 69 too many/);
  await undo();
  await page.getByRole('button', { name: 'Change Funnel cord driver' }).click();
  await page.getByLabel('Channels an output').fill('200');
  await page.getByRole('button', { name: 'Change the controller' }).click();
  await sentence(page, /Output 1 of Funnel cord driver drives 200 channels; 219 are planned, 19 too many/);
  await undo();
  await open(page, '/listen/u13?slot=217');
  await sentence(page, '802 Funnel seam port');
  await sentence(page, /Green of cell 1/);
});

test('the plan: a lamp is dragged with a snap, and taken back', async ({ page }) => {
  await open(page, '/rig/plan');
  await page.getByLabel('Place', { exact: true }).selectOption('Quay');
  const canvas = page.getByRole('img', { name: /^Plan with/ });
  await expect(canvas).toBeVisible();
  await page.getByRole('radio', { name: 'Choose' }).click();
  const box = (await canvas.boundingBox())!;
  const at = (x: number, y: number) => [box.x + x, box.y + y] as const;
  await page.mouse.move(...at(4, 4));
  await page.mouse.down();
  await page.mouse.move(...at(box.width / 2, box.height / 2));
  await page.mouse.move(...at(box.width - 4, box.height - 4));
  await page.mouse.up();
  await sentence(page, /chosen\./);
  await page.getByRole('radio', { name: 'Move' }).click();
  const before = await lamp(501);
  await page.mouse.move(...at(box.width / 2, box.height / 2));
  await page.mouse.down();
  await page.mouse.move(...at(box.width / 2 + 30, box.height / 2));
  await page.mouse.move(...at(box.width / 2 + 60, box.height / 2));
  await page.mouse.up();
  // In a wide pane the bow is to the right, in a high one it is up.
  const axis = box.width > box.height ? 'y' : 'x';
  await expect.poll(async () => (await lamp(501))?.[axis]).toBeGreaterThan(before![axis]);
  expect(((await lamp(501))![axis] * 2) % 1).toBe(0);
  await undo();
  expect((await lamp(501))?.[axis]).toBe(before![axis]);
});

test('prove: a run is stepped through pixel by pixel', async ({ page }) => {
  await open(page, '/rig/pixels/run-802');
  await page.getByRole('button', { name: 'Prove pixel by pixel' }).click();
  await sentence(page, '802 Funnel seam port');
  await page.getByRole('button', { name: 'Take', exact: true }).click();
  await page.getByRole('button', { name: 'Make hot and take' }).click();
  await expect(page.getByTestId('frame-hot')).toBeVisible();
  await page.getByRole('button', { name: 'One pixel on' }).click();
  await page.getByRole('button', { name: 'One pixel on' }).click();
  await sentence(page, 'pixel 2 of 30');
  await makeSafe();
});
