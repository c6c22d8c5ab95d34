/** Marks on their way: none lost, none twice, in order, through torn connections and closed pages. */
import 'fake-indexeddb/auto';
import type { GivenMark } from '@taxiarch/core/whole/contract';
import { PLAIN_MARK } from '@taxiarch/core/show/records';
import { waitFor } from '@testing-library/react';
import { Refusal } from './api';
import { MarkQueue, waitingKeys, type Sending } from './markQueue';

const { stood: _, ...PLAIN } = PLAIN_MARK;
const mark = (id: string): GivenMark => ({
  ...{ ...PLAIN, id, lampId: `lamp-${id}`, result: 'proved', by: 'Mira', at: '2026-11-26T18:00:00Z' },
});

/** A server that keeps what it is sent once by its id, and can be away or lose its answers. */
function server() {
  const kept: string[] = [];
  const state = { away: false, losesAnswer: 0, refuses: '', calls: 0 };
  const sending: Sending = {
    sendMarks: async (_walk, marks) => {
      state.calls += 1;
      await Promise.resolve();
      if (state.away) throw new Refusal('The server does not answer. Nothing was changed.');
      if (state.refuses !== '')
        throw new Refusal(state.refuses, { type: '', title: '', status: 404, detail: state.refuses });
      for (const { id } of marks) if (!kept.includes(id)) kept.push(id);
      if (state.losesAnswer > 0) {
        state.losesAnswer -= 1;
        throw new Refusal('The server does not answer. Nothing was changed.');
      }
    },
    sendPhoto: async () => 'f'.repeat(64),
  };
  return { kept, state, sending };
}

let names = 0;
const ids = (from: number, to: number) =>
  Array.from({ length: to - from }, (_, i) => String(from + i).padStart(3, '0'));
const addAll = async (queue: MarkQueue, some: readonly string[]) => {
  for (const id of some) await queue.add('w', mark(id));
};
const empty = (queue: MarkQueue) => waitFor(() => expect(queue.waiting.read()).toEqual([]));

test('made while the server is away they wait, and are there in order and once when it is back', async () => {
  const { kept, state, sending } = server();
  state.away = true;
  const queue = new MarkQueue(sending, `test-${(names += 1)}`);
  await addAll(queue, ids(0, 200));
  expect([queue.waiting.read().length, kept]).toEqual([200, []]);
  expect(waitingKeys(queue.waiting.read(), 'w')).toHaveLength(200);
  state.away = false;
  // The first answers are lost on the way: it is sent again, and stands once.
  state.losesAnswer = 2;
  for (let i = 0; i < 4; i += 1) await queue.flush();
  await empty(queue);
  expect(kept).toEqual(ids(0, 200));
});

test('a page that was closed sends what it left when it is opened again', async () => {
  const name = `test-${(names += 1)}`;
  const first = server();
  first.state.away = true;
  await addAll(new MarkQueue(first.sending, name), ids(0, 7));
  const second = server();
  const queue = new MarkQueue(second.sending, name);
  await queue.add('w', mark('007'));
  await waitFor(() => expect(second.kept).toEqual(ids(0, 8)));
  await empty(queue);
});

test('what is refused stays with the reason and holds up nothing that comes after; a person sends it again', async () => {
  const { kept, state, sending } = server();
  const queue = new MarkQueue(sending, `test-${(names += 1)}`);
  state.refuses = 'This walk is not in the show any more.';
  await queue.add('gone', mark('000'));
  await waitFor(() => expect(queue.waiting.read()[0]?.refused).toBe(state.refuses));
  state.refuses = '';
  await queue.add('w', mark('001'));
  await waitFor(() => expect(kept).toEqual(['001']));
  await waitFor(() => expect(queue.waiting.read()).toHaveLength(1));
  await queue.retry();
  await empty(queue);
  expect(kept).toEqual(['001', '000']);
});

test('three phones: all there once, each in its own order', async () => {
  const { kept, state, sending } = server();
  state.away = true;
  const phones = ['a', 'b', 'c'].map((phone) => ({ phone, queue: new MarkQueue(sending, `test-${phone}-${names}`) }));
  await Promise.all(
    phones.map(({ phone, queue }) =>
      addAll(
        queue,
        ids(0, 40).map((id) => `${phone}${id}`),
      ),
    ),
  );
  state.away = false;
  state.losesAnswer = 3;
  for (let i = 0; i < 6; i += 1) await Promise.all(phones.map(({ queue }) => queue.flush()));
  await Promise.all(phones.map(({ queue }) => empty(queue)));
  expect(kept).toHaveLength(120);
  for (const { phone } of phones)
    expect(kept.filter((id) => id.startsWith(phone))).toEqual(ids(0, 40).map((id) => `${phone}${id}`));
});
