/**
 * Requests to the lamps of one port: one outstanding, asked three times, late answers waited for, long ones joined, and
 * never more of the line's time than is allowed, so that DMX keeps its rhythm. Times are milliseconds.
 */
import { joinBytes } from '@taxiarch/core/base/bytes';
import { Rdm, exchangeMs, readResponse, type RdmPacket, type RdmResponse, type Uid } from '@taxiarch/core/protocol/rdm';
import type { LampAnswer, LampRequest, LineUse } from '@taxiarch/core/truth/roll';

export interface QueueWire {
  send(packet: RdmPacket): void;
  now(): number;
  later(act: () => void, ms: number): () => void;
  /** Part of the line's time that may be taken, above 0, at most 1 */
  share(): number;
}

interface Job {
  readonly request: LampRequest;
  readonly done: (answer: LampAnswer) => void;
  tries: number;
  /** Of its tries so far: an answer to any of them is one */
  readonly transactions: Set<number>;
  parts: Uint8Array[];
  /** Waits for a late answer until then; asked for it by QUEUED_MESSAGE */
  late: boolean;
  lateUntil: number;
  /** A queued message got no answer: it may have been lost, and what it held with it */
  lost: boolean;
  /** Takes back that it is asked for later */
  stopLater: () => void;
}

interface Current {
  readonly job: Job;
  readonly packet: RdmPacket;
  readonly sentAt: number;
  /** When it counts as silent */
  due: number;
  stop: () => void;
}

/** A node puts a request behind a frame, and its answer back through the network: none in this time will come. */
const PATIENCE_MS = 500;
/** What came quickly so far is waited for less long, but never less than this. */
const LEAST_PATIENCE_MS = 80;
/** A timer that comes later than this says that this computer was held up, and nothing of the lamp. */
const HELD_UP_MS = 40;
const MOST_TRIES = 3;
/** A long answer has at most so many parts. */
const MOST_PARTS = 20;
/** Whoever asks for time gets at most this much. */
const MOST_LATE_MS = 20_000;
const ASK_LATE_MS = 200;

export class PortQueue {
  private readonly urgent: Job[] = [];
  private readonly plain: Job[] = [];
  /** Those that asked for time; what a lamp queues comes in its order, not in ours (E1.20, 10.3.1) */
  private readonly late = new Set<Job>();
  private current: Current | undefined;
  private waiting: (() => void) | undefined;
  private transaction = 0;
  /** When the line may be used again, so that no more than its share is */
  private freeAt = -Infinity;
  /** How long answers took of late, and by how much that varies */
  private usual: { ms: number; varies: number } | undefined;
  private sent = 0;
  private lost = 0;
  private ms = 0;

  constructor(
    private readonly source: Uid,
    private readonly wire: QueueWire,
  ) {}

  get use(): LineUse {
    return { sent: this.sent, lost: this.lost, ms: this.ms };
  }

  add(request: LampRequest, urgent: boolean, done: (answer: LampAnswer) => void): void {
    const job: Job = {
      ...{ request, done, tries: 0, transactions: new Set(), parts: [], late: false, lateUntil: 0, lost: false },
      stopLater: () => undefined,
    };
    (urgent ? this.urgent : this.plain).push(job);
    this.go();
  }

  /** Everything that was not begun is dropped, as not asked. */
  cancel(): void {
    for (const { done } of [...this.urgent.splice(0), ...this.plain.splice(0)]) done({ kind: 'cancelled' });
  }

  private go(): void {
    if (this.current || this.waiting) return;
    const job = this.urgent[0] ?? this.plain[0];
    if (!job) return;
    const wait = this.freeAt - this.wire.now();
    if (wait > 0) return this.pause(wait);
    (this.urgent[0] ? this.urgent : this.plain).shift();
    this.send(job);
  }

  private pause(ms: number): void {
    this.waiting = this.wire.later(() => {
      this.waiting = undefined;
      this.go();
    }, ms);
  }

  private send(job: Job): void {
    const { uid, set, pid, data } = job.request;
    this.transaction = (this.transaction + 1) & 0xff;
    job.tries += 1;
    job.transactions.add(this.transaction);
    const packet: RdmPacket = {
      destination: uid,
      source: this.source,
      transaction: this.transaction,
      portOrType: 1,
      waiting: 0,
      subDevice: 0,
      commandClass: set && !job.late ? Rdm.SET_COMMAND : Rdm.GET_COMMAND,
      pid: job.late ? Rdm.QUEUED_MESSAGE : pid,
      data: job.late ? Uint8Array.of(Rdm.STATUS_ERROR) : data,
    };
    this.current = { job, packet, sentAt: this.wire.now(), due: 0, stop: () => undefined };
    this.wait(this.patience(job));
    this.wire.send(packet);
  }

  private took(ms: number): void {
    const { usual } = this;
    if (!usual) this.usual = { ms, varies: ms / 2 };
    else {
      usual.varies += (Math.abs(ms - usual.ms) - usual.varies) / 4;
      usual.ms += (ms - usual.ms) / 8;
    }
  }

  /** The last try has all the time there is. */
  private patience({ tries }: Job): number {
    if (!this.usual || tries >= MOST_TRIES) return PATIENCE_MS;
    return Math.min(PATIENCE_MS, Math.max(LEAST_PATIENCE_MS, this.usual.ms + 4 * this.usual.varies));
  }

  /** The line was used for so long; it is free again when that is its share. */
  private spent(packet: RdmPacket, answered: number | null, sentAt: number): void {
    const ms = exchangeMs(packet.data.length, answered);
    this.ms += ms;
    this.sent += 1;
    if (answered === null) this.lost += 1;
    this.freeAt = sentAt + ms / this.wire.share();
  }

  private wait(ms: number): void {
    const current = this.current!;
    current.due = this.wire.now() + ms;
    current.stop = this.wire.later(() => this.silent(), ms);
  }

  private silent(): void {
    const { job, packet, sentAt, due } = this.current!;
    // What came meanwhile was not read yet.
    if (this.wire.now() - due > HELD_UP_MS) return this.wait(LEAST_PATIENCE_MS);
    this.spent(packet, null, sentAt);
    this.current = undefined;
    job.lost = job.late;
    if (job.tries < MOST_TRIES) this.urgent.unshift(job);
    else this.end(job, { kind: 'silent' });
    this.go();
  }

  private end(job: Job, answer: LampAnswer): void {
    this.late.delete(job);
    job.stopLater();
    job.done(answer);
  }

  /** It is asked again before all others. */
  private again(job: Job): void {
    job.stopLater();
    job.tries = 0;
    job.transactions.clear();
    if (!this.urgent.includes(job)) this.urgent.unshift(job);
  }

  /** A packet that came from the port; what answers nobody is left alone. */
  receive(packet: RdmPacket): void {
    const { current } = this;
    if (!current || packet.source !== current.packet.destination) return;
    if (!current.job.transactions.has(packet.transaction)) return;
    const response = readResponse(packet);
    if (!response.ok) return;
    current.stop();
    if (packet.transaction === this.transaction) this.took(this.wire.now() - current.sentAt);
    // It answers a try that was given up: that one was late, and not lost.
    else this.lost -= 1;
    this.spent(current.packet, packet.data.length, current.sentAt);
    this.current = undefined;
    this.judge(current.job, packet, response.value);
    this.go();
  }

  private judge(job: Job, packet: RdmPacket, response: RdmResponse): void {
    if (!job.late || isAbout(packet, job.request)) return this.take(job, packet, response);
    // Who knows no queued messages, or whose answer was lost with one, is asked anew for what was asked.
    const unknown = packet.pid === Rdm.QUEUED_MESSAGE && response.kind === 'nack';
    if (unknown || (job.lost && packet.waiting === 0)) {
      this.late.delete(job);
      job.late = job.lost = false;
      return this.askLater(job, ASK_LATE_MS);
    }
    const other = [...this.late].find(
      (one) => one.request.uid === packet.source && isAbout(packet, one.request) && one !== job,
    );
    if (other) {
      this.urgent.splice(0, Infinity, ...this.urgent.filter((one) => one !== other));
      this.take(other, packet, response);
    }
    this.askLate(job, packet.waiting > 0 ? 0 : ASK_LATE_MS);
  }

  private take(job: Job, packet: RdmPacket, response: RdmResponse): void {
    switch (response.kind) {
      case 'ack':
        return this.end(job, { kind: 'ack', data: joinBytes([...job.parts, response.data]), waiting: packet.waiting });
      case 'nack':
        return this.end(job, { kind: 'refused', reason: response.reason });
      case 'overflow':
        if (job.parts.length >= MOST_PARTS) return this.end(job, { kind: 'silent' });
        job.parts.push(response.data);
        return this.again(job);
      case 'timer':
        return this.askLate(job, response.ms);
    }
  }

  /** Its answer comes later: others have the line meanwhile. */
  private askLate(job: Job, ms: number): void {
    const now = this.wire.now();
    if (!job.late) job.lateUntil = now + ms + MOST_LATE_MS;
    job.late = true;
    this.late.add(job);
    if (now > job.lateUntil) return this.end(job, { kind: 'silent' });
    this.askLater(job, ms);
  }

  private askLater(job: Job, ms: number): void {
    job.stopLater();
    job.tries = 0;
    job.transactions.clear();
    job.stopLater = this.wire.later(
      () => {
        this.urgent.push(job);
        this.go();
      },
      Math.min(ms, MOST_LATE_MS),
    );
  }
}

/** Whether a queued message is the answer to a request. */
const isAbout = (packet: RdmPacket, { pid, set }: LampRequest): boolean =>
  packet.pid === pid && packet.commandClass === (set ? Rdm.SET_COMMAND_RESPONSE : Rdm.GET_COMMAND_RESPONSE);
