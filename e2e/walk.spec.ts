/** The walk on two phones and a wide screen: shared, disputed, through a gap, signed, and the file checked. The rig is the witness. */
import { type Browser, type BrowserContext, type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { OutputReport, ShowReply } from '@taxiarch/core/whole/contract';
import type { Proof } from '@taxiarch/core/show/records';
import { BASE, PERSON, api, handle, makeSafe, open, panel } from './whole';

const RIG = 29;
interface Hanging {
  readonly tag: string;
  readonly lit: number;
}
/** Lamps that shine as bright as can be, at the rig. */
const litTags = async () =>
  (await panel<Hanging[]>(RIG, 'lamps')).filter(({ lit }) => lit > 0.99).map(({ tag }) => Number(tag));
const records = async () => (await api<ShowReply>('/api/show')).records;
/** Numbers of the lamps whose first slot Taxiarch holds. */
const heldLamps = async () => {
  const { holds } = await api<OutputReport>('/api/output');
  return (await records()).lamp
    .filter(({ universe, channel }) =>
      holds.some((one) => one.universe === universe && one.runs.some(([from, to]) => from <= channel && channel <= to)),
    )
    .map(({ number }) => number);
};

/** All that walks left behind, taken out in one edit. */
async function withoutWalks(): Promise<void> {
  const { walk, mark } = await records();
  const gone = (kind: string) => (one: { id: string; rev: number }) => ({
    kind,
    id: one.id,
    rev: one.rev,
    after: null,
  });
  const changes = [...mark.map(gone('mark')), ...walk.map(gone('walk'))];
  if (changes.length > 0) await api('/api/edits', { author: 'the tests', sentence: 'Took walks out', changes });
}

test.afterEach(async () => {
  await makeSafe();
  await withoutWalks();
});

/** A phone, or a wide screen, in somebody’s hand. */
async function held(browser: Browser, person: string, viewport = { width: 390, height: 844 }) {
  const context: BrowserContext = await browser.newContext({
    viewport,
    storageState: { cookies: [], origins: [{ origin: BASE, localStorage: [{ name: 'person', value: person }] }] },
  });
  return { context, page: await context.newPage() };
}

const inHand = async (page: Page): Promise<number> =>
  Number((await page.getByLabel('Number of the lamp in hand').textContent()) ?? '');
const press = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const marksOf = async () => (await records()).mark;

test('two phones walk one place: shared, lit by turns, disputed; one goes through a gap and loses nothing', async ({
  browser,
  troubles,
}) => {
  troubles.expect(/ERR_INTERNET_DISCONNECTED/);
  test.slow();
  const mara = await held(browser, PERSON);
  await open(mara.page, '/prove/walks');
  await press(mara.page, 'Begin a walk');
  await mara.page.getByLabel('Which lamps').selectOption({ label: 'Wheelhouse' });
  await press(mara.page, 'Walk 30 lamps');
  await expect(mara.page.getByText('0 of 30 lamps proved. 30 untried.')).toBeVisible();
  const path = new URL(mara.page.url()).pathname;
  await press(mara.page, 'Walk on');
  await press(mara.page, 'Make hot and light it');
  await expect.poll(litTags).toContain(await inHand(mara.page));
  await expect.poll(heldLamps).toEqual([await inHand(mara.page)]);

  const jory = await held(browser, 'Jory');
  await open(jory.page, path);
  await press(jory.page, 'Walk on');
  await expect(jory.page.getByLabel('Number of the lamp in hand')).toBeVisible();
  const [hers, his] = [await inHand(mara.page), await inHand(jory.page)];
  expect(his).not.toBe(hers);
  await expect.poll(litTags).toEqual(expect.arrayContaining([hers, his]));
  await expect.poll(heldLamps).toEqual([hers, his].sort((a, b) => a - b));

  await press(mara.page, 'Proved');
  await expect.poll(() => inHand(mara.page)).not.toBe(hers);
  // What was marked is given back; nobody is given it once more.
  await expect.poll(heldLamps).not.toContain(hers);
  await press(jory.page, 'Failed');
  await press(jory.page, 'Flickers');
  await expect.poll(() => inHand(jory.page)).not.toBe(his);
  await expect(jory.page.getByRole('button', { name: /^Why\?/ })).toBeVisible();
  await expect
    .poll(async () => (await marksOf()).map(({ by, result, why }) => `${by} ${result} ${why}`.trim()).sort())
    .toEqual(['Jory failed flickers', `${PERSON} proved`]);

  // The network goes from one phone: it walks on, and what it marks waits on it.
  await jory.context.setOffline(true);
  const before = await inHand(jory.page);
  for (let i = 0; i < 3; i += 1) {
    const now = await inHand(jory.page);
    await press(jory.page, 'Proved');
    await expect.poll(() => inHand(jory.page)).not.toBe(now);
  }
  await expect(jory.page.getByText(/^3 marks wait on this phone/)).toBeVisible();
  await expect(jory.page.getByText(/The server is away/)).toBeVisible();
  // What it had lit is given back.
  await expect.poll(heldLamps).not.toContain(before);
  await jory.context.setOffline(false);
  await expect(jory.page.getByText(/marks? wait on this phone/)).toBeHidden();
  const his5 = (await marksOf()).filter(({ by }) => by === 'Jory');
  expect(his5).toHaveLength(4);
  expect(his5.map(({ at }) => at)).toEqual([...his5.map(({ at }) => at)].sort());
  expect(new Set(his5.map(({ lampId }) => lampId)).size).toBe(4);

  // On a wide screen: she says otherwise of the lamp that he failed.
  await press(mara.page, 'Stop walking');
  await mara.page.getByRole('button', { name: new RegExp(`^${his} .*failed$`) }).click();
  await expect.poll(() => inHand(mara.page)).toBe(his);
  await press(mara.page, 'Proved');
  const wide = await held(browser, PERSON, { width: 1280, height: 800 });
  await open(wide.page, path);
  await expect(wide.page.getByText(/^4 of 30 lamps proved\. 1 disputed/)).toBeVisible();
  await expect(wide.page.getByText(`${PERSON}: proved · Jory: failed, flickers`)).toBeVisible();
  for (const { context } of [mara, jory, wide]) await context.close();
  await expect.poll(async () => (await api<OutputReport>('/api/output')).holds).toEqual([]);
});

test('a phone that goes while it walks has its lamp given back, and what it marked stays', async ({ browser }) => {
  const { context, page } = await held(browser, PERSON);
  await open(page, '/prove/walks');
  await press(page, 'Begin a walk');
  await page.getByLabel('Which lamps').selectOption({ label: 'Wheelhouse' });
  await press(page, 'Walk 30 lamps');
  await press(page, 'Walk on');
  await press(page, 'Make hot and light it');
  const first = await inHand(page);
  await expect.poll(litTags).toContain(first);
  await press(page, 'Proved');
  await expect.poll(() => inHand(page)).not.toBe(first);
  const second = await inHand(page);
  await expect.poll(litTags).toContain(second);
  // A photograph goes with what failed.
  await press(page, 'Failed');
  const png = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
  await page
    .getByLabel('Photograph', { exact: true })
    .setInputFiles({ name: 'lamp.png', mimeType: 'image/png', buffer: Buffer.from(png, 'base64') });
  await expect(page.getByRole('button', { name: 'Photograph taken; another' })).toBeVisible();
  await press(page, 'Other');
  await expect.poll(() => inHand(page)).not.toBe(second);
  await expect
    .poll(async () => (await marksOf()).find(({ result }) => result === 'failed')?.photo ?? '')
    .toMatch(/^[0-9a-f]{64}$/);
  const { photo } = (await marksOf()).find(({ result }) => result === 'failed')!;
  expect((await fetch(`${BASE}/api/photos/${photo}`)).headers.get('content-type')).toBe('image/jpeg');
  const third = await inHand(page);
  await expect.poll(litTags).toContain(third);
  await context.close();
  await expect.poll(heldLamps).not.toContain(third);
  expect(await marksOf()).toHaveLength(2);
});

test('channel by channel: two that do each other’s work are recognised, and mended in the type', async ({ page }) => {
  const type = (await records()).lamp.find(({ number }) => number === 701)!.typeId;
  const before = (await records()).type.find(({ id }) => id === type)!;
  const walk = {
    ...{ id: 'walk-by-channel', rev: 0, name: 'By channel', by: PERSON, at: new Date().toISOString(), unit: 'channel' },
    ...{ covers: { kind: 'chosen', id: '', part: '' }, order: 'number', pictures: ['full'], lampIds: ['lamp-701'] },
  };
  await api('/api/edits', {
    ...{ author: PERSON, sentence: 'Began a walk' },
    changes: [{ kind: 'walk', id: walk.id, rev: null, after: walk }],
  });
  await open(page, `/prove/walks/${walk.id}`);
  await press(page, 'Walk on');
  await press(page, 'Walk without');
  await expect(page.getByText('It lights.')).toBeVisible();
  await press(page, 'Proved');
  await expect(page.getByText('It shines red.')).toBeVisible();
  await press(page, 'Failed');
  await page.getByLabel('It does something else').selectOption({ label: 'Green' });
  await expect(page.getByText('It shines green.')).toBeVisible();
  await press(page, 'Failed');
  await page.getByLabel('It does something else').selectOption({ label: 'Red' });
  await expect(page.getByText('It shines blue.')).toBeVisible();
  await press(page, 'Stop walking');
  await expect(page.getByText(/^Red and Green of 701 .* are swapped\.$/)).toBeVisible();
  await page.getByRole('button', { name: /^Exchanged Red and Green/ }).click();
  const offsets = async () =>
    (await records()).type
      .find(({ id }) => id === type)!
      .modes.map(({ channels }) => channels.find(({ attribute }) => attribute === 'ColorAdd_R')?.offsets);
  await expect
    .poll(offsets)
    .not.toEqual(
      before.modes.map(({ channels }) => channels.find(({ attribute }) => attribute === 'ColorAdd_R')?.offsets),
    );
  await api('/api/undo', { author: PERSON });
});

test('signed on a wide screen, and the file checked: as it was, and with one letter changed', async ({ browser }) => {
  const { context, page } = await held(browser, PERSON, { width: 1280, height: 800 });
  await open(page, '/prove/proof');
  for (const part of ['Pixels', 'Switches', 'What if: every single failure'])
    await page.getByRole('checkbox', { name: part }).click();
  await page.getByLabel('Role').fill('Lighting network technician');
  await page.getByLabel('In words').fill('Looked at from the quay.');
  await press(page, 'Sign it');
  await expect(page.getByText(`${PERSON}, Lighting network technician:`)).toBeVisible();
  const { proof } = await records();
  const last = proof.reduce((a: Proof, b: Proof) => (a.rev > b.rev ? a : b));
  const json = await (await fetch(`${BASE}/api/proofs/${last.id}/json`)).text();
  expect(JSON.parse(json)).toMatchObject({ signed: { name: PERSON, words: 'Looked at from the quay.' }, pixels: [] });
  const give = (name: string, text: string) =>
    page.getByLabel('File to check').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  await give('proof.json', json);
  await expect(page.getByText(`This is, byte by byte, what ${PERSON} signed`)).toBeVisible();
  await give('proof.json', json.replace('from the quay', 'from the pier'));
  await expect(page.getByText(/No record of proof of this show has this file/)).toBeVisible();
  // The paper as well.
  const pdf = Buffer.from(await (await fetch(`${BASE}/api/proofs/${last.id}/pdf`)).arrayBuffer());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  await page.getByLabel('File to check').setInputFiles({ name: 'proof.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(page.getByText(`This is, byte by byte, what ${PERSON} signed`)).toBeVisible();
  await context.close();
});

test('what if: a desk freezes, the worst stands first; nothing is sent', async ({ page }) => {
  await open(page, '/prove/what-if');
  await page.getByLabel('To whom').selectOption({ label: 'Bridge desk' });
  await press(page, 'Put it on the time line');
  await expect(page.getByText('The worst first')).toBeVisible();
  await expect(page.getByText(/lamps (from others|held|dark)/).first()).toBeVisible();
  await page.getByRole('radio', { name: 'Everything' }).click();
  await press(page, 'Try every failure');
  await expect(page.getByText(/^\d+ failures cost light/)).toBeVisible();
  const output = await api<OutputReport>('/api/output');
  expect([output.hot, output.holds]).toEqual([false, []]);
});

test('a test picture: lit at the rig, its level followed, given back from the live strip', async ({ page }) => {
  await open(page, '/prove/pictures');
  await page.getByLabel('On what').selectOption({ label: 'Wheelhouse: 30 lamps' });
  await press(page, 'Show it');
  await press(page, 'Make hot and show it');
  await expect(page.getByText('Level on 2 universes.')).toBeVisible();
  await expect.poll(async () => (await litTags()).filter((tag) => tag >= 701 && tag <= 718)).toHaveLength(18);
  await press(page, 'Give back all');
  await expect(page.getByText('Choose what to light, and by which picture.')).toBeVisible();
  await expect.poll(async () => (await api<OutputReport>('/api/output')).pictures).toEqual([]);
});

test.afterAll(() => handle('rig', { reset: true }));
