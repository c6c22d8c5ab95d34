import { fireEvent, screen, within } from '@testing-library/react';
import { nightFerry } from '@taxiarch/core/whole/demo';
import type { SuspectReport, WhyReport } from '@taxiarch/core/truth/known';
import { routed } from '@/testing/router';
import { open, proposed, settled } from '@/testing/server';
import { WhyPage } from './WhyPage';

const ferry = nightFerry();
const boiler = { kind: 'machine', id: 'machine-boiler', part: '' } as const;
const suspect = (over: Partial<SuspectReport> = {}): SuspectReport => ({
  cause: 'node-unplugged',
  about: boiler,
  says: 'The network cable of Boiler node is out.',
  share: 0.5,
  explains: ['Boiler node does not answer.'],
  against: [],
  repair: 'Plug it in.',
  act: { kind: 'hand' },
  ...over,
});
const answer = (over: Partial<WhyReport> = {}): WhyReport => ({
  about: boiler,
  sentence: 'It may be: The network cable of Boiler node is out.',
  sure: 'open',
  path: [
    {
      about: { kind: 'port', id: 'machine-boiler', part: '1' },
      kind: 'port',
      name: 'Boiler node, port 1',
      planned: 'sACN 6',
      now: 'does not answer',
      known: 'not known',
      evidence: ['It never answered.'],
      state: 'broken',
    },
    {
      about: { kind: 'stream', id: '6', part: 'machine-bridge' },
      kind: 'sender',
      name: 'Bridge desk, universe 6',
      planned: 'sACN 6 at priority 100',
      now: 'heard',
      known: 'heard',
      evidence: ['Its last packet came here 0.2 s ago.'],
      state: 'fine',
    },
  ],
  broken: 0,
  suspects: [suspect(), suspect({ cause: 'node-off', says: 'Boiler node has no power.', against: ['It would glow.'] })],
  together: 0,
  question: { about: boiler, question: 'on', text: 'Are the lights of Boiler node on?' },
  took: 20,
  ...over,
});
const page = (why: WhyReport, params: Record<string, string> = { kind: 'machine', id: 'machine-boiler' }) =>
  open(<WhyPage />, {
    records: ferry,
    params,
    says: { [`/api/why?kind=${params['kind']}&id=${params['id']}`]: why },
  });
const sentence = () => screen.getByRole('heading', { level: 1 }).textContent;
const steps = () => within(screen.getByRole('list', { name: 'The path' })).getAllByRole('listitem');

test('the sentence, the path as the light goes with its first break, and how each step is known', async () => {
  await page(answer());
  expect(sentence()).toBe('It may be: The network cable of Boiler node is out.');
  expect(steps().map((step) => step.textContent)).toEqual([
    expect.stringMatching(/^Bridge desk, universe 6fine.*heard/),
    expect.stringMatching(/^Boiler node, port 1must fixHere it breaks first.*Now: does not answernot known/),
  ]);
});

test('a mark says what it means, and what it rests on, when it is tapped', async () => {
  await page(answer());
  fireEvent.click(screen.getByRole('button', { name: 'heard, how it is known: Bridge desk, universe 6' }));
  expect(screen.getByText('A packet came to this computer.')).toBeTruthy();
  expect(screen.getByText('Its last packet came here 0.2 s ago.')).toBeTruthy();
});

test('what else it could be stands below, with what speaks against it', async () => {
  await page(answer());
  fireEvent.click(screen.getByRole('button', { name: 'For and against: Boiler node has no power.' }));
  expect(screen.getByText('Against: It would glow.')).toBeTruthy();
});

test('an answer to the question is kept under the person’s name', async () => {
  await page(answer());
  const question = screen.getByRole('group', { name: 'A question' });
  expect(question.textContent).toContain('Are the lights of Boiler node on?');
  fireEvent.click(within(question).getByRole('button', { name: 'No' }));
  await settled();
  expect(proposed()[0]).toMatchObject({
    kind: 'sighting',
    after: { about: boiler, question: 'on', answer: 'no', by: 'Ivo' },
  });
});

test('where a packet can mend it, one tap pushes to that node', async () => {
  const push = { kind: 'push', machineId: 'machine-boiler' } as const;
  await page(answer({ suspects: [suspect({ act: push })], question: undefined, sure: 'certain' }));
  expect(screen.getByRole('button', { name: 'Make hot and push to Boiler node' })).toBeTruthy();
  expect(screen.queryByRole('group', { name: 'A question' })).toBeNull();
});

test('a lamp that is to be looked at can be lit from the question', async () => {
  const lamp = { kind: 'lamp', id: 'lamp-101', part: '' } as const;
  await page(answer({ about: lamp, question: { about: lamp, question: 'lit', text: 'Does it light?' } }), {
    kind: 'lamp',
    id: 'lamp-101',
  });
  expect(screen.getByText('Why? Lamp 101 Port spot 1')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Light it' }));
  expect(routed.sent).toEqual(['/prove?lamp=lamp-101']);
});

test('without saying of what, it says where to ask', async () => {
  await open(<WhyPage />, { records: ferry });
  expect(screen.getByText(/^Open Why\? from a lamp/)).toBeTruthy();
});
