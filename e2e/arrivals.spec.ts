/** Files as the trade writes them: brought in, compared, corrected, taken over, taken back; and out again. */
import { readFileSync } from 'node:fs';
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { lampTable } from '@taxiarch/core/files/format';
import { makeZip, openZip } from '@taxiarch/core/files/format/archive';
import { writeSheet } from '@taxiarch/core/files/format/sheets';
import { BASE, api, open, undo } from './whole';

const show = async () => (await api<ShowReply>('/api/show')).records;
const lamp = async (number: number) => (await show()).lamp.find((one) => one.number === number);
const bring = (page: Page, ...files: { name: string; buffer: Buffer }[]) =>
  page.setInputFiles(
    'input[type=file]',
    files.map((file) => ({ ...file, mimeType: 'application/octet-stream' })),
  );
const answer = (page: Page) => page.getByRole('heading', { level: 1 }).last();

test('the lamps go out as a table and come in changed; one field is left, one row is left out, and it is taken back', async ({
  page,
}) => {
  await open(page, '/rig/files');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export Lamps as CSV' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Night Ferry lamps.csv');
  const text = readFileSync((await download.path())!, 'utf8')
    .replace('Port spot 1,', 'Figurehead,')
    .replace('Port spot 2,', 'Bowsprit,')
    .replace(',1/3,', ',1/900,');
  await bring(page, { name: 'lamps.csv', buffer: Buffer.from(text) });
  await expect(answer(page)).toContainText('lamps.csv: 2 differ, 418 same.');
  await expect(page.getByText(/^Line 4: 900 is not a channel/)).toBeVisible();
  await expect(page.getByText('name Port spot 1 → Figurehead')).toBeVisible();
  await page.getByRole('checkbox', { name: '102 Bowsprit' }).click();
  await page.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(page.getByRole('status', { name: 'Just done' })).toContainText('Imported lamps.csv');
  expect((await lamp(101))?.name).toBe('Figurehead');
  expect((await lamp(102))?.name).toBe('Port spot 2');

  // The next version asks only what is new: what was left out stays left out.
  await bring(page, { name: 'lamps v2.csv', buffer: Buffer.from(text) });
  await expect(page.getByText(/^An earlier version was imported on/)).toBeVisible();
  await expect(page.getByRole('checkbox', { name: '102 Bowsprit' })).not.toBeChecked();
  await expect(page.getByRole('button', { name: 'Import 0 rows' })).toBeDisabled();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await expect(answer(page)).toContainText('Import a rig, or export 420 lamps.');
  await undo();
  expect((await lamp(101))?.name).toBe('Port spot 1');
});

test('a rig from a sheet with titles and heads in two rows: its unknown type is said once, and it is taken over', async ({
  page,
}) => {
  const { heads, rows } = lampTable(await show());
  const at = (head: string) => heads.indexOf(head);
  const some = rows
    .slice(0, 12)
    .map((row) => [
      ...[
        Number(row[at('Number')]) + 900,
        row[at('Name')]!,
        row[at('Type')] === 'Lantern 1k' ? 'Lantern' : row[at('Type')]!,
      ],
      ...[row[at('Mode')]!, '', 'Foremast'],
    ]);
  const sheet = writeSheet(
    ['Night Ferry'],
    [
      ['as of Tuesday'],
      ['', '', 'Instrument', '', 'DMX', ''],
      ['Chan', 'Name', 'Type', 'Mode', 'Address', 'Position'],
      ...some,
    ],
    'Foredeck',
    'xlsx',
  );
  await open(page, '/rig/files');
  await bring(page, { name: 'foredeck.xlsx', buffer: Buffer.from(sheet) });
  await expect(answer(page)).toContainText(/foredeck\.xlsx: 12 new/);
  await expect(page.getByText('1 type that the file does not hold: say what it is')).toBeVisible();
  const type = (await show()).type.find(({ name }) => name === 'Lantern 1k')!;
  await page.getByLabel('Type of Lantern').selectOption(type.id);
  await expect(page.getByText('Types, as they were said')).toBeVisible();
  await page.getByRole('button', { name: 'Import 12 rows' }).click();
  await expect(page.getByRole('status', { name: 'Just done' })).toContainText('Imported foredeck.xlsx');
  expect(await lamp(901)).toMatchObject({ typeId: type.id, position: 'Foremast', universe: 0, channel: 0 });
  await open(page, '/rig');
  await expect(page.getByText('Without an address')).toBeVisible();
  await undo();
  expect((await show()).lamp).toHaveLength(420);
});

test('a scene with three types missing, beside a type that comes with it: mapped, compared, taken over, taken back', async ({
  page,
}) => {
  const whole = openZip(new Uint8Array(await (await page.request.get(`${BASE}/api/export/mvr`)).body()));
  if (!whole.ok) throw new Error(whole.why);
  const entries = { ...whole.value };
  const scene = 'GeneralSceneDescription.xml';
  const given = ['Baleen@Spot 16', 'Orrin@Petal 4', 'Quillon@Batten 12'];
  const spot = Buffer.from(entries[`${given[0]}.gdtf`]!);
  let text = new TextDecoder().decode(entries[scene]);
  for (const [i, name] of given.entries()) {
    delete entries[`${name}.gdtf`];
    text = text.replaceAll(`${name}.gdtf`, `Elsewhere@Thing ${i + 1}.gdtf`);
  }
  text = text.replaceAll('name="Port spot 1"', 'name="Figurehead"');
  const mvr = Buffer.from(makeZip({ ...entries, [scene]: new TextEncoder().encode(text) }));
  await open(page, '/rig/files');
  await bring(page, { name: 'rig.mvr', buffer: mvr }, { name: 'spot.gdtf', buffer: spot });
  // The type comes first, whatever the order in which the files were chosen.
  await expect(answer(page)).toContainText(/^File 1 of 2\. spot\.gdtf: 1 same/);
  await page.getByRole('button', { name: 'Leave it' }).click();
  await expect(page.getByText('3 types that the file does not hold: say what they are')).toBeVisible();
  const { type: types } = await show();
  for (const [i, name] of given.entries()) {
    const type = types.find((one) => `${one.maker}@${one.name}` === name)!;
    await page.getByLabel(`Type of Elsewhere Thing ${i + 1}`).selectOption(type.id);
    await expect(page.getByLabel(/^Mode “/).first()).not.toHaveValue('');
  }
  await expect(page.getByText('Types, as they were said')).toBeVisible();
  await expect(answer(page)).toContainText(/^rig\.mvr: 1 differ/);
  await expect(page.getByText('name Port spot 1 → Figurehead')).toBeVisible();
  await page.getByRole('button', { name: 'Import 1 row' }).click();
  await expect(page.getByRole('status', { name: 'Just done' })).toContainText('Imported rig.mvr');
  expect((await lamp(101))?.name).toBe('Figurehead');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await lamp(101))?.name).toBe('Port spot 1');

  await bring(page, { name: 'bad.mvr', buffer: Buffer.from('no archive') });
  await expect(page.getByText(/The file is no ZIP archive/)).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await open(page, '/rig/files');
  await bring(page, { name: 'note.pdf', buffer: Buffer.from('x') });
  await expect(page.getByText(/“note\.pdf” is of no kind that is read/)).toBeVisible();
});
