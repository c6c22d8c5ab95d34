/** Practising: a night is planted in the stand-ins, found with what Taxiarch tells, and marked. */
import { expect, test } from './fixture';
import type { PracticeReply, StandIn } from '@taxiarch/core/whole/contract';
import { nightOf } from '@taxiarch/core/truth/practise';
import { PERSON, api, open } from './whole';

const nightWith = (id: string): number =>
  Array.from({ length: 2000 }, (_, i) => i + 1).find((number) => nightOf(number, 1, 'easy')[0]!.id === id)!;
const plugged = async (id: string) => (await api<StandIn[]>('/api/stand-ins')).find((one) => one.id === id)!.plugged;

test.afterEach(async () => {
  if ((await api<PracticeReply>('/api/practice')).running) await api('/api/practice/end', {});
});

test('a cable is out: looked for, named from Why?, and marked; then all is as it was', async ({ page }) => {
  test.slow();
  await open(page, '/wire/stand-ins');
  await page.getByRole('link', { name: /^Practise/ }).click();
  await page.getByLabel('How many things are wrong').selectOption('1');
  await page.getByLabel(/^Number of the night/).fill(String(nightWith('boiler-unplugged')));
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('0 of 1 thing found that is wrong.')).toBeVisible();
  expect(await plugged('boiler')).toBe(false);

  const bar = page.getByRole('region', { name: 'Practice' });
  await expect(bar).toContainText('0 of 1 found');
  await page.getByRole('button', { name: 'Give a hint' }).click();
  await expect(page.getByText('Something is noticed at universe 6.')).toBeVisible();
  await page.getByLabel('Where').selectOption({ label: 'Quay node' });
  await page.getByLabel('What', { exact: true }).selectOption({ label: 'A node has no power' });
  await page.getByRole('button', { name: 'This is it' }).click();
  await expect(page.getByText('That is not what is wrong.')).toBeVisible();

  // The network is the stand-ins’ own while somebody practises.
  const refused = await fetch(new URL('/api/settings', page.url()), {
    method: 'PATCH',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ interface: '192.0.2.1' }),
  });
  expect(refused.status).toBe(422);

  await page.getByRole('button', { name: 'How things stand' }).click();
  await expect(page.getByRole('heading', { level: 1 }).first()).toContainText('Boiler node');
  await open(page, '/why?kind=machine&id=machine-boiler');
  await page.getByRole('button', { name: /^This is it: The network cable of Boiler node/ }).click();
  await expect(page.getByText('That is right.')).toBeVisible();
  expect(await plugged('boiler')).toBe(true);

  await open(page, '/practise');
  await expect(page.getByRole('heading', { level: 1 }).first()).toHaveText(
    /^1 of 1 fault found in \d+:\d\d: 85 points\.$/,
  );
  const wrong = page.getByRole('list', { name: 'What was wrong' });
  await expect(wrong).toContainText(/How things stand → Why\? of Boiler node/);
  await expect(page.getByText(PERSON, { exact: true }).last()).toBeVisible();
});
