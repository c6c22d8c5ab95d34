/** The first thread's door to the show: requests go through as they came, and its plan is known here as it is now. */
import type { LiveReport } from '@taxiarch/core/whole/contract';
import type { ProposedEdit } from '@taxiarch/core/show/edit';
import type { PictureWish, Program } from '@taxiarch/core/rig/picture';
import type { Result } from '@taxiarch/core/base/result';
import type { Snapshot } from '@taxiarch/core/show/records';
import type { RollNow } from '@taxiarch/core/truth/roll';
import type { NextFound, NextWish } from '@taxiarch/core/proving/walk';
import { Asks } from './asks';
import { Away } from './away';
import type { Notices } from './notices';
import { Supervised } from './supervisor';
import { LIVE_ENDPOINTS, ROLL_ENDPOINTS } from './showMessages';
import type { FromShow, RawCall, RawReply, ShowEndpoint, ShowSetup, ToShow, LampsOfShow } from './showMessages';
import { emptyPlan, type PlanView } from './plan';

/** An edit may keep its thread busy for long; after this it hangs. */
const PATIENCE_MS = 120_000;

export class ShowDoor {
  private readonly thread: Supervised<ToShow, FromShow>;
  private readonly asks = new Asks();
  private view: PlanView = emptyPlan();
  /** What is on the wire, for whoever asks why something does not work; throws while nothing is known of it. */
  live: (() => LiveReport) | undefined;
  /** What lamps answered, likewise */
  roll: (() => RollNow) | undefined;
  /** The plan is another than before. */
  onPlan: (plan: PlanView) => void = () => undefined;
  /** An edit was made; its text for the feed. */
  onEdit: (text: Uint8Array) => void = () => undefined;
  /** Edits may have been made that were not told. */
  onMissed: () => void = () => undefined;

  constructor(file: URL, setup: ShowSetup, notices: Notices) {
    this.thread = new Supervised({
      file,
      patience: PATIENCE_MS,
      data: () => ({ data: setup }),
      received: (message) => this.handle(message, notices),
      failed: (why) => {
        notices.say('show', `The part that keeps the show failed: ${why}. It is being started again.`);
        this.asks.refuse(
          new Away('The part that keeps the show failed; ask again in a moment. What was confirmed is kept.'),
        );
      },
      back: (after, why) => {
        this.onMissed();
        notices.say(
          'show',
          `The part that keeps the show failed: ${why}. It was started again after ${(after / 1000).toFixed(1)} s; nothing that was confirmed is lost.`,
        );
      },
    });
  }

  /** Opens the show; rejects with the reason if it cannot. */
  start(): Promise<void> {
    return this.thread.start();
  }

  /** All but what there are many thousands of, as the last edit left it; the same object until the next. */
  plan(): PlanView {
    return this.view;
  }

  private handle(message: FromShow, notices: Notices): void {
    switch (message.type) {
      case 'plan':
        this.view = { ...this.view, ...message.changed };
        return this.onPlan(this.view);
      case 'edit':
        return this.onEdit(message.text);
      case 'notice':
        return notices.say(message.id, message.sentence, message.mend);
      case 'reply':
        return this.asks.settle(message.ask, message.reply);
      case 'proposed':
        return this.asks.settle(message.ask, message.refused);
      case 'snapshot':
        return this.asks.settle(message.ask, message.snapshot);
      case 'lamps':
        return this.asks.settle(message.ask, message.lamps);
      case 'program':
        return this.asks.settle(message.ask, message.program);
      case 'nextOfWalk':
        return this.asks.settle(message.ask, message.found);
    }
  }

  private ask<T>(message: (ask: number) => ToShow, transfer: readonly ArrayBuffer[] = []): Promise<T> {
    if (!this.thread.up) return Promise.reject(new Away('The show is being opened; ask again in a moment.'));
    return this.asks.ask<T>((ask) => this.thread.tell(message(ask), transfer));
  }

  /** A request of one of the show's endpoints, as it came. */
  call(name: ShowEndpoint, { params, query, bytes }: RawCall): Promise<RawReply> {
    const live = LIVE_ENDPOINTS.has(name) ? this.live?.() : undefined;
    const roll = ROLL_ENDPOINTS.has(name) ? this.roll?.() : undefined;
    const call = { params, query, bytes, ...(live && { live }), ...(roll && { roll }) };
    // Long bodies have memory of their own, and go over without being copied.
    const { buffer, byteLength } = call.bytes;
    const transfer = buffer.byteLength === byteLength && byteLength > 0 ? [buffer as ArrayBuffer] : [];
    return this.ask((ask) => ({ type: 'call', ask, name, call }), transfer);
  }

  /** Makes an edit of the program's own; resolves with a sentence if it was refused. */
  propose(edit: ProposedEdit): Promise<string | undefined> {
    return this.ask((ask) => ({ type: 'propose', ask, edit }));
  }

  snapshot(id: string): Promise<Snapshot | undefined> {
    return this.ask((ask) => ({ type: 'snapshot', ask, id }));
  }

  /** Lamps of these ids and the one that is known by a UID, or all, with the types that they are of. */
  lamps(ids: readonly string[] | null, uid = ''): Promise<LampsOfShow> {
    return this.ask((ask) => ({ type: 'lamps', ask, ids, uid }));
  }

  /** What a test picture is to send, or why it cannot. */
  program(wish: PictureWish): Promise<Result<Program>> {
    return this.ask((ask) => ({ type: 'program', ask, wish }));
  }

  nextOfWalk(wish: NextWish): Promise<NextFound> {
    return this.ask((ask) => ({ type: 'nextOfWalk', ask, wish }));
  }

  /** For tests: makes the thread, or that of the findings, throw or hang. */
  break(thread: 'show' | 'findings', how: 'throw' | 'hang'): void {
    this.thread.tell({ type: 'break', thread, how });
  }

  stop(): Promise<void> {
    return this.thread.stop({ type: 'close' }, PATIENCE_MS);
  }
}
