/** The queue of one port, on a clock of its own: one outstanding, three tries, late and long answers, and its share. */
import { exchangeMs, Rdm, type RdmPacket } from '@taxiarch/core/protocol/rdm';
import type { LampAnswer, LampRequest } from '@taxiarch/core/truth/roll';
import { PortQueue } from './portQueue';

const UID = '7ff1:00000012';
const request = (pid: number = Rdm.DEVICE_INFO, over: Partial<LampRequest> = {}): LampRequest => ({
  ...{ uid: UID, set: false, pid, data: new Uint8Array(0) },
  ...over,
});

/** A clock that goes when it is told to, and a line whose other end is the test. */
class Bench {
  now = 0;
  share = 1;
  readonly sent: RdmPacket[] = [];
  private timers: { at: number; act: () => void }[] = [];
  readonly queue = new PortQueue('7ff0:00000001', {
    send: (packet) => this.sent.push(packet),
    now: () => this.now,
    share: () => this.share,
    later: (act, ms) => {
      const timer = { at: this.now + ms, act };
      this.timers.push(timer);
      return () => (this.timers = this.timers.filter((one) => one !== timer));
    },
  });

  /** This computer stands still: what comes meanwhile is read after the timers. */
  heldUp(ms: number): void {
    this.now += ms;
    this.run(0);
  }

  run(ms: number): void {
    const end = this.now + ms;
    for (;;) {
      const next = this.timers.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at)[0];
      if (!next) break;
      this.timers = this.timers.filter((one) => one !== next);
      this.now = Math.max(this.now, next.at);
      next.act();
    }
    this.now = end;
  }

  get last(): RdmPacket {
    return this.sent[this.sent.length - 1]!;
  }

  answer(type: number, data: readonly number[] = [], over: Partial<RdmPacket> = {}): void {
    const { last } = this;
    this.queue.receive({
      ...last,
      ...{ destination: last.source, source: last.destination, commandClass: last.commandClass + 1 },
      ...{ portOrType: type, data: Uint8Array.from(data) },
      ...over,
    });
  }

  ask(one = request(), urgent = false): { answer: LampAnswer | undefined } {
    const came: { answer: LampAnswer | undefined } = { answer: undefined };
    this.queue.add(one, urgent, (answer) => (came.answer = answer));
    return came;
  }
}

test('one is outstanding at a time, and the urgent go first', () => {
  const bench = new Bench();
  bench.ask(request(1));
  bench.ask(request(2));
  bench.ask(request(3), true);
  expect(bench.sent.map(({ pid }) => pid)).toEqual([1]);
  bench.answer(Rdm.RESPONSE_TYPE_ACK);
  bench.run(50);
  expect(bench.sent.map(({ pid }) => pid)).toEqual([1, 3]);
  bench.answer(Rdm.RESPONSE_TYPE_ACK);
  bench.run(50);
  expect(bench.sent.map(({ pid }) => pid)).toEqual([1, 3, 2]);
});

test('it is asked three times before it counts as silent, and the next has its turn', () => {
  const bench = new Bench();
  const first = bench.ask(request(1));
  const second = bench.ask(request(2));
  bench.run(1400);
  expect(bench.sent.map(({ pid }) => pid)).toEqual([1, 1, 1]);
  expect(first.answer).toBeUndefined();
  bench.run(200);
  expect(first.answer).toEqual({ kind: 'silent' });
  expect(bench.last.pid).toBe(2);
  bench.answer(Rdm.RESPONSE_TYPE_NACK_REASON, [0, 4]);
  expect(second.answer).toEqual({ kind: 'refused', reason: 4 });
  expect(bench.queue.use).toMatchObject({ sent: 4, lost: 3 });
});

test('an answer to a try that was given up counts, and nothing was lost then', () => {
  const bench = new Bench();
  const { sent } = bench;
  const came = bench.ask();
  bench.run(600);
  expect(sent).toHaveLength(2);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [7], { transaction: sent[0]!.transaction });
  expect(came.answer).toMatchObject({ kind: 'ack', data: Uint8Array.of(7) });
  expect(bench.queue.use.lost).toBe(0);
});

test('what answers nobody, or another’s question, changes nothing', () => {
  const bench = new Bench();
  const came = bench.ask();
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { transaction: 99 });
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { source: '7ff1:00000099' });
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { commandClass: Rdm.GET_COMMAND });
  expect(came.answer).toBeUndefined();
  bench.answer(Rdm.RESPONSE_TYPE_ACK);
  bench.answer(Rdm.RESPONSE_TYPE_ACK);
  expect(came.answer).toMatchObject({ kind: 'ack' });
});

test('who asks for time is asked again by a queued message, and others have the line meanwhile', () => {
  const bench = new Bench();
  const slow = bench.ask(request(Rdm.DMX_START_ADDRESS, { set: true, data: Uint8Array.of(0, 9) }));
  const other = bench.ask(request(2));
  bench.answer(Rdm.RESPONSE_TYPE_ACK_TIMER, [0, 5]);
  bench.run(50);
  expect(bench.last.pid).toBe(2);
  bench.answer(Rdm.RESPONSE_TYPE_ACK);
  expect(other.answer).toMatchObject({ kind: 'ack' });
  bench.run(400);
  expect(bench.sent).toHaveLength(2);
  bench.run(100);
  expect(bench.last).toMatchObject({ pid: Rdm.QUEUED_MESSAGE, commandClass: Rdm.GET_COMMAND });
  // A message about something else is let go, and it is asked again.
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { pid: Rdm.STATUS_MESSAGES });
  expect(slow.answer).toBeUndefined();
  bench.run(400);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { pid: Rdm.DMX_START_ADDRESS, commandClass: Rdm.SET_COMMAND_RESPONSE });
  expect(slow.answer).toMatchObject({ kind: 'ack' });
});

test('late answers come in the lamp’s order; each goes to the request that it answers', () => {
  const bench = new Bench();
  const mode = bench.ask(request(Rdm.DMX_PERSONALITY, { set: true, data: Uint8Array.of(3) }));
  const info = bench.ask(request(Rdm.DEVICE_INFO));
  bench.answer(Rdm.RESPONSE_TYPE_ACK_TIMER, [0, 1]);
  bench.run(20);
  bench.answer(Rdm.RESPONSE_TYPE_ACK_TIMER, [0, 1]);
  bench.run(80);
  expect(bench.last.pid).toBe(Rdm.QUEUED_MESSAGE);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [5], { pid: Rdm.DEVICE_INFO, waiting: 1 });
  expect(info.answer).toMatchObject({ kind: 'ack', data: Uint8Array.of(5) });
  expect(mode.answer).toBeUndefined();
  bench.run(30);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { pid: Rdm.DMX_PERSONALITY, commandClass: Rdm.SET_COMMAND_RESPONSE });
  expect(mode.answer).toMatchObject({ kind: 'ack' });
  const { sent } = bench.queue.use;
  bench.run(5000);
  expect(bench.queue.use.sent).toBe(sent);
});

test('a late answer that was lost on its way is asked for anew, as is one of a lamp that queues nothing', () => {
  const bench = new Bench();
  const came = bench.ask(request(Rdm.DEVICE_LABEL));
  bench.answer(Rdm.RESPONSE_TYPE_ACK_TIMER, [0, 1]);
  bench.run(200);
  expect(bench.sent.filter(({ pid }) => pid === Rdm.QUEUED_MESSAGE).length).toBeGreaterThan(1);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { pid: Rdm.STATUS_MESSAGES });
  bench.run(200);
  expect(bench.last.pid).toBe(Rdm.DEVICE_LABEL);
  bench.answer(Rdm.RESPONSE_TYPE_ACK_TIMER, [0, 1]);
  bench.run(100);
  bench.answer(Rdm.RESPONSE_TYPE_NACK_REASON, [0, 0], { pid: Rdm.QUEUED_MESSAGE });
  bench.run(200);
  expect(bench.last.pid).toBe(Rdm.DEVICE_LABEL);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [9]);
  expect(came.answer).toMatchObject({ kind: 'ack', data: Uint8Array.of(9) });
});

test('a computer that was held up blames no lamp', () => {
  const bench = new Bench();
  const came = bench.ask();
  for (let i = 0; i < 5; i += 1) bench.heldUp(3000);
  expect(bench.sent).toHaveLength(1);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [7]);
  expect(came.answer).toMatchObject({ kind: 'ack', data: Uint8Array.of(7) });
});

test('who never comes back with a late answer counts as silent in the end', () => {
  const bench = new Bench();
  const slow = bench.ask();
  bench.answer(Rdm.RESPONSE_TYPE_ACK_TIMER, [0, 1]);
  for (let i = 0; i < 200 && !slow.answer; i += 1) {
    bench.run(200);
    if (bench.last.pid === Rdm.QUEUED_MESSAGE) bench.answer(Rdm.RESPONSE_TYPE_ACK, [], { pid: Rdm.STATUS_MESSAGES });
  }
  expect(slow.answer).toEqual({ kind: 'silent' });
});

test('a long answer is joined; the same is asked until its end', () => {
  const bench = new Bench();
  const came = bench.ask(request(Rdm.SLOT_INFO));
  bench.answer(Rdm.RESPONSE_TYPE_ACK_OVERFLOW, [1, 2]);
  bench.run(50);
  expect(bench.last.pid).toBe(Rdm.SLOT_INFO);
  bench.answer(Rdm.RESPONSE_TYPE_ACK_OVERFLOW, [3]);
  bench.run(50);
  bench.answer(Rdm.RESPONSE_TYPE_ACK, [4]);
  expect(came.answer).toMatchObject({ kind: 'ack', data: Uint8Array.of(1, 2, 3, 4) });
});

test.each([0.5, 0.1])('no more than %f of the line’s time is used', (share) => {
  const bench = new Bench();
  bench.share = share;
  for (let i = 0; i < 40; i += 1) bench.ask(request(i));
  const began = bench.now;
  while (bench.sent.length < 40) {
    bench.answer(Rdm.RESPONSE_TYPE_ACK, new Array<number>(19).fill(0));
    bench.run(1);
  }
  const used = 39 * exchangeMs(0, 19);
  expect(used / (bench.now - began)).toBeLessThanOrEqual(share);
  // And not much less: it does not idle.
  expect(used / (bench.now - began)).toBeGreaterThan(share * 0.8);
});

test('what was not begun is dropped when nobody wants it any more', () => {
  const bench = new Bench();
  const first = bench.ask(request(1));
  const second = bench.ask(request(2));
  bench.queue.cancel();
  expect(second.answer).toEqual({ kind: 'cancelled' });
  bench.answer(Rdm.RESPONSE_TYPE_ACK);
  expect(first.answer).toMatchObject({ kind: 'ack' });
  bench.run(50);
  expect(bench.sent).toHaveLength(1);
});
