/** Lamps that answer: the roll is called, what is wrong is mended or taken over; a rig is matched by eye. The rig's own page is the witness. */
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import type { EyeReply } from '@taxiarch/core/proving/eye';
import type { RollReply } from '@taxiarch/core/truth/roll';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { api, handle, makeSafe, open, panel, undo } from './whole';

const RIG = 29;
interface Hanging {
  readonly tag: string;
  readonly uid: string;
  readonly x: number;
  readonly y: number;
  readonly address: number;
  readonly mode: number;
  readonly lit: number;
  readonly identifying: boolean;
}
const hanging = () => panel<Hanging[]>(RIG, 'lamps');
const hangs = async (tag: number): Promise<Hanging> => (await hanging()).find((one) => one.tag === String(tag))!;
const hand = (rig: object) => handle('rig', { rig });
const lampOf = async (number: number) =>
  (await api<ShowReply>('/api/show')).records.lamp.find((one) => one.number === number)!;

test.afterEach(async () => {
  if ((await api<EyeReply>('/api/eye')).running) await api('/api/eye/end', {});
  await makeSafe();
  await handle('rig', { reset: true });
  // What the lamps said meanwhile stands against nothing that comes after.
  await callWheelhouse();
});

/** Asks the lamps of the wheelhouse until it is known how all are set. */
async function callWheelhouse(): Promise<void> {
  await expect.poll(async () => (await api<RollReply>('/api/roll')).progress.running).toBe(false);
  const ports = [1, 11].map((portAddress) => ({ address: '127.0.0.31', portAddress }));
  await api('/api/roll/call', { ports, afresh: true });
  await expect.poll(async () => (await api<RollReply>('/api/roll')).progress.running).toBe(false);
}

const consent = async (page: Page, name: string) => {
  const button = page.getByRole('button', { name });
  await expect(button).toBeVisible();
  await button.click();
};

test('the roll finds four wrong lamps; three are mended and read back, one is taken into the plan', async ({
  page,
}) => {
  test.slow();
  await hand({ lamps: ['703'], address: 90 });
  await hand({ lamps: ['705'], mode: 1 });
  await hand({ lamps: ['708'], address: 200 });
  await hand({ lamps: ['3'], address: 100 });
  await open(page, '/prove/roll?node=machine-wheelhouse');
  await page.getByRole('button', { name: 'Call the roll' }).click();
  const lamps = page.getByRole('list', { name: 'Lamps' });
  for (const number of [3, 703, 705, 708])
    await expect(lamps.getByRole('checkbox', { name: `Choose ${number}`, exact: true })).toBeVisible();
  await expect(lamps).toContainText('Set to 200 where 36 is planned.');
  await expect(lamps).toContainText('In mode RGBW, 4 slots where Intensity RGBW, 5 slots is planned.');
  await expect(page.getByRole('button', { name: 'Call the roll' })).toBeVisible();

  for (const number of [3, 703, 705])
    await lamps.getByRole('checkbox', { name: `Choose ${number}`, exact: true }).click();
  await page.getByRole('button', { name: 'Mend 3 at the lamp' }).click();
  await consent(page, 'Make hot and do it');
  await expect(page.getByText('3 of 3 done')).toBeVisible();
  expect((await hangs(703)).address).toBe((await lampOf(703)).channel);
  expect(await hangs(705)).toMatchObject({ mode: 2 });
  expect((await hangs(3)).address).toBe((await lampOf(3)).channel);
  expect((await hangs(708)).address).toBe(200);
  await page.getByRole('button', { name: 'Close' }).click();

  await page.getByRole('button', { name: 'Take it into the plan' }).click();
  await page.getByRole('region', { name: 'Preview' }).getByRole('button', { name: 'Take into the plan' }).click();
  await expect.poll(async () => (await lampOf(708)).channel).toBe(200);
  expect((await lampOf(708)).uid).toBe((await hangs(708)).uid);
  const roll = await api<RollReply>('/api/roll');
  expect(roll.rows.filter(({ state }) => state === 'differs')).toEqual([]);
  await undo();
  expect((await lampOf(708)).channel).toBe(36);
});

/** Where a lamp stands on a plan that shows these lamps and nothing else. */
function spotOn(box: { x: number; y: number; width: number; height: number }, all: readonly Hanging[], one: Hanging) {
  const turned = box.width > box.height;
  const range = (of: (lamp: Hanging) => number) => {
    const values = all.map(of);
    const [low, high] = [Math.min(...values), Math.max(...values)];
    return { middle: (low + high) / 2, length: Math.max(2, high - low) };
  };
  const [x, y] = [range((lamp) => lamp.x), range((lamp) => lamp.y)];
  const [across, along] = turned ? [y, x] : [x, y];
  const scale = Math.min((box.width - 60) / across.length, (box.height - 60) / along.length);
  const right = turned ? one.y - y.middle : one.x - x.middle;
  const down = turned ? one.x - x.middle : y.middle - one.y;
  return [box.x + box.width / 2 + right * scale, box.y + box.height / 2 + down * scale] as const;
}

test('eight lamps that nobody knows are matched by taps on the plan', async ({ page }) => {
  test.slow();
  const numbers = Array.from({ length: 8 }, (_, i) => 701 + i);
  // Fresh from the store: all at one address, in another mode, without a label.
  await hand({ lamps: numbers.map(String), address: 1, mode: 1, label: '' });
  await api('/api/output/hot', { hot: true, by: 'the tests' });
  await open(page, '/prove');
  await page.getByLabel('Search by number or name').first().fill('70');
  for (const number of numbers) await page.getByRole('checkbox', { name: new RegExp(`^${number} `) }).click();
  await callWheelhouse();
  await page.getByRole('link', { name: 'By eye' }).click();
  await expect(page.getByLabel('Which lamps')).toHaveValue('chosen');
  await page.getByRole('button', { name: 'Begin with 8 lamps' }).click();
  const plan = page.getByRole('img', { name: 'Plan with 8 lamps' });
  await expect(plan).toBeVisible();
  const all = (await hanging()).filter(({ tag }) => numbers.includes(Number(tag)));
  for (let left = 8; left > 0; left -= 1) {
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Which lamp lights? ${left} to go.`);
    let shows: Hanging | undefined;
    const { running } = await api<EyeReply>('/api/eye');
    await expect
      .poll(
        async () => (shows = (await hanging()).find((one) => one.identifying && one.uid === running!.waiting[0]!.uid)),
      )
      .toBeTruthy();
    const [x, y] = spotOn((await plan.boundingBox())!, all, shows!);
    await page.mouse.click(x, y);
  }
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('All were lit: 8 of 8 lamps found.');
  await expect
    .poll(async () => (await api<EyeReply>('/api/eye')).lamps.every(({ says }) => says === 'Set and read back.'))
    .toBe(true);
  for (const number of numbers) {
    const lamp = await lampOf(number);
    expect(await hangs(number)).toMatchObject({ address: lamp.channel, mode: 2, uid: lamp.uid });
  }
  await page.getByRole('button', { name: 'End' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('8 lamps matched.');
  await expect.poll(async () => (await hanging()).filter(({ identifying }) => identifying)).toEqual([]);
  for (let i = 0; i < 8; i += 1) await undo();
});
