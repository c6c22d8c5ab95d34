import { fireEvent, screen } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { itemOfUid, type EyeReply, type EyeSession } from '@taxiarch/core/proving/eye';
import { answers, asked, liveOf, open, refusal, settled } from '@/testing/server';
import { EyePage } from './EyePage';

const records = nightFerry();
const lampIds = ['lamp-701', 'lamp-702', 'lamp-703'];
const session = (over: Partial<EyeSession> = {}): EyeSession => ({
  ...{ by: 'Ivo', how: 'asked', lampIds, between: false, first: [], waiting: ['a', 'b'].map(itemOfUid), steps: [] },
  ...over,
});
const eye = (over: Partial<EyeReply> = {}): EyeReply => ({
  running: session(),
  now: 'Orrin Petal 4, a',
  likely: 'lamp-702',
  left: 2,
  lamps: lampIds.map((id) => ({ id, state: 'waiting', says: '' })),
  lighting: 'on',
  trouble: '',
  ...over,
});
const NOTHING = eye({ running: null, now: '', likely: '', left: 0, lamps: [] });
const page = (reply: EyeReply, hot = true) => {
  const output = { hot, since: 1, by: 'Ivo', holds: [], rate: 0, pictures: [], targets: {} };
  return open(<EyePage />, { records, live: liveOf(records, { output }), says: { '/api/eye': reply } });
};
const press = async (name: string | RegExp) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settled();
};
const bodies = () => asked.map(({ path, body }) => [path, body]);

test('the likely lamp is one tap away, and the next is asked for', async () => {
  await page(eye());
  const next = eye({ running: session({ waiting: [itemOfUid('b')] }), left: 1, likely: 'lamp-703' });
  answers.set('/api/eye/answer', next).set('/api/eye', next);
  await press('It is 702 Bridge-wing petal 2');
  expect(bodies()).toEqual([['/api/eye/answer', { lit: 'a', answer: 'tapped', lampIds: ['lamp-702'], sure: false }]]);
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Which lamp lights? 1 to go.');
});

test('it is said by number, skipped, not seen, and taken back', async () => {
  await page(
    eye({
      running: session({
        steps: [{ item: itemOfUid('z'), answer: 'skipped', lampIds: [], set: '', outcome: '', followed: false }],
      }),
    }),
  );
  answers.set('/api/eye/answer', eye());
  answers.set('/api/eye/back', eye());
  await press('Back');
  const number = screen.getByLabelText('Number');
  fireEvent.change(number, { target: { value: '703' } });
  fireEvent.keyDown(number, { key: 'Enter' });
  await settled();
  await press('Skip');
  await press('Not seen');
  expect(asked.map(({ path, body }) => (body as { answer?: string } | undefined)?.answer ?? path)).toEqual([
    '/api/eye/back',
    'tapped',
    'skipped',
    'not seen',
  ]);
  expect(asked[1]!.body).toMatchObject({ lampIds: ['lamp-703'] });
});

test('what cannot be right is asked back, and sent again when the person is sure', async () => {
  await page(eye());
  answers.set('/api/eye/answer', refusal(422, '702 Bridge-wing petal 2 was tapped before. Is it really this one?'));
  await press('It is 702 Bridge-wing petal 2');
  answers.set('/api/eye/answer', eye());
  await press('Yes, this one');
  expect(asked.map(({ body }) => (body as { sure: boolean }).sure)).toEqual([false, true]);
});

test('without asking several can light at once', async () => {
  const stretch = { uid: '', universe: 1, first: 13, last: 20, of: '', among: [] };
  await page(eye({ running: session({ how: 'stretches', waiting: [stretch] }), likely: '', left: 1 }));
  answers.set('/api/eye/answer', eye());
  const number = screen.getByLabelText('Number');
  for (const value of ['701', '703']) {
    fireEvent.change(number, { target: { value } });
    fireEvent.keyDown(number, { key: 'Enter' });
    await settled();
  }
  await press('These 2 light');
  expect(asked[0]!.body).toMatchObject({ lit: '1/13-20', lampIds: ['lamp-701', 'lamp-703'] });
});

test('made safe it says that nothing is lit, and goes on when it is hot again', async () => {
  await page(eye({ lighting: 'safe' }), false);
  expect(screen.getByText(/Where it stood is kept/)).toBeTruthy();
  await press('Make hot and go on');
  expect(asked.map(({ path }) => path)).toEqual(['/api/output/hot']);
});

test('a match begins with a part of the rig, after a person agreed to make it hot', async () => {
  await page(NOTHING, false);
  const wheelhouse = records.place.find(({ name }) => name === 'Wheelhouse')!;
  fireEvent.change(screen.getByLabelText('Which lamps'), { target: { value: wheelhouse.id } });
  await settled();
  answers.set('/api/eye/begin', eye());
  await press('Begin with 30 lamps');
  expect(asked).toEqual([]);
  await press('Make hot and begin');
  expect(asked.map(({ path }) => path)).toEqual(['/api/output/hot', '/api/eye/begin']);
  expect(asked[1]!.body).toMatchObject({ how: 'asked', forget: 'none' });
  expect((asked[1]!.body as { lampIds: string[] }).lampIds).toHaveLength(30);
});

test('at its end stands what is as planned, elsewhere and not found', async () => {
  await page(eye({ running: session({ how: 'stretches', waiting: [] }), left: 0 }));
  const at = { uid: '', universe: 12, first: 300, last: 300, of: '', among: [] };
  const step = {
    item: at,
    answer: 'tapped' as const,
    lampIds: ['lamp-702'],
    set: '' as const,
    outcome: '',
    followed: false,
  };
  answers.set('/api/eye/end', {
    ...eye({ running: session({ how: 'stretches', waiting: [], steps: [step] }) }),
    lamps: [
      { id: 'lamp-701', state: 'done', says: 'As planned.' },
      { id: 'lamp-702', state: 'elsewhere', says: 'It lights by 12/300; planned is 12/6.' },
      { id: 'lamp-703', state: 'not found', says: 'Nobody saw it light.' },
    ],
  });
  answers.set('/api/eye', NOTHING);
  await press('End');
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe(
    '1 lamp seen where planned, 1 elsewhere, 1 not found.',
  );
  await press('Take into the plan');
  expect(screen.getByText('12/300')).toBeTruthy();
});

test('one that was matched and refused is not called done', async () => {
  const refused = { id: 'lamp-702', state: 'not set' as const, says: 'It refuses: it is locked against writing.' };
  await page(eye({ lamps: [...eye().lamps.filter(({ id }) => id !== 'lamp-702'), refused] }));
  expect(screen.getByText(/1 lamp matched and not set: It refuses/)).toBeTruthy();
  answers.set('/api/eye/end', eye({ running: session(), lamps: [refused] })).set('/api/eye', NOTHING);
  await press('End');
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('0 lamps matched, 1 matched and not set.');
});
