/** What was once believed too easily: each is told where one lands, and mended from Why?. */
import { createSocket } from 'node:dgram';
import { type Page } from '@playwright/test';
import { expect, test } from './fixture';
import { encodeDmx } from '@taxiarch/core/protocol/artnet';
import type { ShowReply } from '@taxiarch/core/whole/contract';
import { BOILER_NODE, UDP, api, handle, levelAt, makeSafe, open } from './whole';

test.afterEach(async () => {
  await makeSafe();
  await handle('all', { reset: true });
  // What was looked at and kept on the way is not the next test's.
  const { records } = await api<ShowReply>('/api/show');
  const changes = (['snapshot', 'sighting'] as const).flatMap((kind) =>
    records[kind].map(({ id, rev }) => ({ kind, id, rev, after: null })),
  );
  if (changes.length > 0) await api('/api/edits', { author: 'Ivo', sentence: 'Cleared what was kept', changes });
});

const verdict = (page: Page) => page.getByRole('heading', { level: 1 }).first();
const well = /^Nothing stands against it that can be heard or is said; 420 of 420 lamps nobody has seen\.$/;

test('a port set to another universe: the universe leaves no port, the lamps are counted, and Why? mends it', async ({
  page,
}) => {
  test.slow();
  await open(page, '/');
  await expect(verdict(page)).toHaveText(well);
  await handle('car-deck', { turn: { port: 3, wire: 9 } });
  await expect(verdict(page)).toHaveText(
    /^Not yet\. Port 3 of Car deck node is set to sACN 9, planned is sACN 4: 28 lamps without light/,
  );
  await open(page, '/flow');
  await expect(verdict(page)).toContainText('39 of 40 universes leave a port, as the ports say.');

  await page.getByRole('link', { name: 'Why? Universe 4', exact: true }).click();
  const path = page.getByRole('list', { name: 'The path' });
  await expect(path.getByRole('listitem').filter({ hasText: 'Here it breaks first' })).toContainText('set to sACN 9');
  await page.getByRole('button', { name: 'Make hot and push to Car deck node' }).click();
  await expect(page.getByText('Port 3, universe').first()).toBeVisible();
  await open(page, '/');
  await expect(verdict(page)).toHaveText(well);
});

test('a visualiser that gets nothing: its links are not fine, and Why? says what to do', async ({ page }) => {
  test.slow();
  await handle('crow', { faults: { early: true } });
  await open(page, '/flow/links');
  await expect(page.getByText(/2 to mend\./)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('link', { name: /^Porthole to Crow/ }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'It arrives' })).toContainText(
    'nothing comes in for 13-38',
  );
  await page.getByRole('button', { name: /^Why\? Porthole to Crow/ }).click();
  await expect(verdict(page)).toContainText('Crow’s nest was started before its sender');
  await expect(page.getByText('Start Crow’s nest again.')).toBeVisible();
  await handle('crow', { faults: { early: false } });
  await expect(verdict(page)).not.toContainText('started before');
});

test('a node that does not answer: two causes fit, one question tells them apart, and what was seen stays', async ({
  page,
}) => {
  test.slow();
  await handle('quay', { plugged: false });
  await open(page, '/why?kind=machine&id=machine-quay');
  const question = page.getByRole('group', { name: 'A question' });
  await expect(question).toContainText('Are the lights of Quay node on?');
  await question.getByRole('button', { name: 'Yes' }).click();
  await expect(verdict(page)).toHaveText(/The network cable of Quay node is out/);
  await expect(verdict(page)).not.toContainText('It may be');
});

/** Somebody whom nobody planned sends Art-Net to all, until the returned function is called. */
async function stranger(address: string, portAddress: number): Promise<() => void> {
  const socket = createSocket({ type: 'udp4', reuseAddr: true });
  await new Promise<void>((bound) => socket.bind(0, address, bound));
  socket.setBroadcast(true);
  const bytes = encodeDmx({ sequence: 0, physical: 0, portAddress, slots: new Uint8Array(512).fill(9) });
  const sending = setInterval(() => socket.send(bytes, UDP.artnet, '127.255.255.255'), 100);
  return () => {
    clearInterval(sending);
    socket.close();
  };
}

test('a port that merges two already and takes no third: told before the take, not called won, named and mended', async ({
  page,
}) => {
  test.slow();
  // Universe 10 goes by Art-Net from the Bridge desk to port 3 of the Boiler node.
  const leave = await stranger('127.0.0.201', 9);
  try {
    await open(page, '/prove');
    await page.getByRole('radio', { name: 'Slots' }).click();
    await page.getByLabel('One slot or a run').fill('10/5');
    const forecast = page.getByRole('list', { name: 'What a take would bring' });
    await expect(forecast).toContainText(
      /Would not follow: Port 3 of Boiler node merges already as many senders as it can: .*Bridge desk/,
    );
    await page.getByRole('button', { name: 'Take', exact: true }).click();
    await page.getByRole('button', { name: 'Make hot and take' }).click();
    await page.getByLabel('Level', { exact: true }).fill('255');
    // What the port says then is no more than that: it merges, and what it merges is not what was taken.
    await expect(page.getByRole('list', { name: 'What the ports say' })).toContainText(
      'Boiler node, port 3: it says that it sends, merging',
    );
    expect(await levelAt(BOILER_NODE, 3, 5)).not.toBe(255);

    await open(page, '/why?kind=slot&id=10&part=5');
    await expect(verdict(page)).toContainText('127.0.0.201');
    await expect(page.getByRole('list', { name: 'The path' })).toContainText('heard from 127.0.0.201');
  } finally {
    leave();
  }
  // The stranger has gone, and ten seconds later its place with it: what was taken gets through.
  await expect.poll(() => levelAt(BOILER_NODE, 3, 5)).toBe(255);
});
