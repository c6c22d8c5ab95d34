import { fireEvent, screen, within } from '@testing-library/react';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { answers, asked, open, refusal, settled } from '@/testing/server';
import { StandInsPage } from './StandInsPage';

const records = nightFerry();
const port = (number: number) => ({
  number,
  use: 'out' as const,
  protocol: 'sacn' as const,
  wire: number,
  merge: 'htp',
  state: 'sends',
  peak: 255,
  lit: 12,
  sources: ['Bridge desk', 'Stern desk'],
});
const box = (over: Partial<StandIn> = {}): StandIn => ({
  id: 'car-deck',
  name: 'Car deck node',
  kind: 'node',
  model: 'Tern Rack 8',
  address: '127.0.0.33',
  mask: '255.0.0.0',
  powered: true,
  plugged: true,
  loses: 0,
  delays: 0,
  locating: false,
  cue: '',
  cues: [],
  master: 100,
  faders: [],
  ports: Array.from({ length: 8 }, (_, i) => port(i + 1)),
  ...over,
});
const desk = box({
  id: 'bridge',
  name: 'Bridge desk',
  kind: 'console',
  cue: 'Boarding',
  cues: ['Boarding', 'Open water'],
  faders: [0, 10],
  ports: [],
});

const bench = (...boxes: StandIn[]) =>
  open(<StandInsPage />, { records, says: { '/api/stand-ins': boxes, '/api/stand-ins/handle': boxes } });
const region = (name: string) => within(screen.getByRole('region', { name }));
const last = () => asked.at(-1)!.body;

test('who is on is counted; a plug that is out and a power that is off are said', async () => {
  await bench(
    box(),
    box({ id: 'quay', name: 'Quay node', plugged: false }),
    box({ id: 'x', name: 'X', powered: false }),
  );
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('1 of 3 stand-ins on.');
  expect(region('Quay node').getByText('○ unplugged')).toBeTruthy();
  expect(region('X').getByText('○ off')).toBeTruthy();
});

test('ports say what leaves them and whose it is; few stand there until the box is opened', async () => {
  await bench(box());
  expect(region('Car deck node').getAllByText('sends · Bridge desk and Stern desk · HTP')).toHaveLength(6);
  expect(region('Car deck node').getByText('and 2 more.')).toBeTruthy();
  fireEvent.click(region('Car deck node').getByRole('button', { name: /^Open/ }));
  expect(region('Car deck node').getAllByText('12 lit')).toHaveLength(8);
});

test('hands pull plugs, switch power, turn knobs and make trouble', async () => {
  await bench(box());
  const node = () => region('Car deck node');
  const press = async (name: string) => {
    fireEvent.click(node().getByRole('button', { name }));
    await settled();
  };
  await press('Unplug Car deck node');
  expect(last()).toEqual({ id: 'car-deck', plugged: false });
  await press('Power off Car deck node');
  expect(last()).toEqual({ id: 'car-deck', power: false });
  await press('Open Car deck node');
  fireEvent.change(node().getByLabelText('Port'), { target: { value: '2' } });
  fireEvent.change(node().getByLabelText('Number on the wire'), { target: { value: '9' } });
  await press('Turn');
  expect(last()).toEqual({ id: 'car-deck', turn: { port: 2, wire: 9 } });
  await press('LTP');
  expect(last()).toEqual({ id: 'car-deck', turn: { port: 2, settings: { merge: 'ltp' } } });
  fireEvent.change(node().getByLabelText('When signal is lost'), { target: { value: 'hold-black' } });
  await settled();
  expect(last()).toMatchObject({ turn: { port: 2, settings: { loss: { kind: 'hold-black', after: 3 } } } });
  fireEvent.change(node().getByLabelText('Mask that it says'), { target: { value: '255.255.0.0' } });
  await press('Set the mask');
  expect(last()).toEqual({ id: 'car-deck', turn: { mask: '255.255.0.0' } });
  fireEvent.change(node().getByRole('slider', { name: 'Loses packets, %' }), { target: { value: '25' } });
  await settled();
  expect(last()).toEqual({ id: 'car-deck', loses: 0.25 });
});

test('a desk plays its cues, its master and its faders', async () => {
  await bench(desk);
  const front = () => region('Bridge desk');
  fireEvent.click(front().getByRole('button', { name: /^Open/ }));
  fireEvent.change(front().getByLabelText('Cue'), { target: { value: 'Open water' } });
  await settled();
  expect(last()).toEqual({ id: 'bridge', cue: 'Open water' });
  fireEvent.change(front().getByRole('slider', { name: 'Fader 2' }), { target: { value: '99' } });
  await settled();
  expect(last()).toEqual({ id: 'bridge', fader: [1, 99] });
  fireEvent.click(front().getByRole('button', { name: /^Stop/ }));
  await settled();
  expect(last()).toEqual({ id: 'bridge', power: false });
});

test('the visualiser says what it does not receive, and is wrong on purpose', async () => {
  const visualiser = {
    faults: { base: 1, iface: 'right', otherMode: false, early: false },
    received: 14,
    universes: 40,
    missing: '13-38',
    page: 'http://127.0.0.24:7630/',
  } as const;
  await bench(box({ id: 'crow', name: 'Crow’s nest', kind: 'visualiser', ports: [], visualiser }));
  expect(region('Crow’s nest').getByText('Receives 14 of 40 universes; not 13-38.')).toBeTruthy();
  fireEvent.click(region('Crow’s nest').getByRole('checkbox', { name: 'Counts Art-Net from 0 instead of 1' }));
  await settled();
  expect(last()).toEqual({ id: 'crow', faults: { base: 0 } });
});

test('what a box refuses is said on the box', async () => {
  await bench(box());
  answers.set('/api/stand-ins/handle', refusal(422, 'A port of this box cannot be an input.'));
  fireEvent.click(region('Car deck node').getByRole('button', { name: /^Unplug/ }));
  await settled();
  expect(region('Car deck node').getByText('A port of this box cannot be an input.')).toBeTruthy();
});

test('all are made as they were shipped by one button; while somebody practises that is refused in a sentence', async () => {
  await open(<StandInsPage />, { records, says: { '/api/stand-ins': [box()], '/api/stand-ins/handle': [box()] } });
  fireEvent.click(screen.getByRole('button', { name: 'Make all as they were shipped' }));
  await settled();
  expect(asked.at(-1)).toMatchObject({ path: '/api/stand-ins/handle', body: { id: 'all', reset: true } });
  answers.set('/api/stand-ins/handle', refusal(422, 'Somebody practises on the stand-ins. End that first.'));
  fireEvent.click(screen.getByRole('button', { name: 'Make all as they were shipped' }));
  await settled();
  expect(screen.getByText('Somebody practises on the stand-ins. End that first.')).toBeTruthy();
});
