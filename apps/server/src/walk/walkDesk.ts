/** Who walks now, and what each has in hand: one step after another, so that no two are given the same. */
import type { StepReply, StepRequest } from '@taxiarch/core/whole/contract';
import type { NextFound, Walker } from '@taxiarch/core/proving/walk';
import type { Program } from '@taxiarch/core/rig/picture';
import { holderOf } from '../bridge/holder';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';

/** A phone says every second and a half that it is there; after this it is away, and what it had in hand is open again. */
const AWAY_MS = 5000;
/** In this time after a start all that walk have said so. */
const GATHER_MS = 2500;
/** Whoever is away may be marking what nobody hears of yet: their part is left to them for so long, if there is other work. */
const PART_MS = 10 * 60_000;

export interface Lights {
  /** Lights a lamp in the place of the one before; a sentence if it cannot be */
  light(
    client: string,
    by: string,
    program: Program,
    how: { readonly speed: number; readonly level: number },
  ): Promise<string | undefined>;
  dark(client: string): Promise<void>;
  /** Whether it is lit still */
  shines(client: string): boolean;
  readonly isHot: boolean;
}

export class WalkDesk {
  /** By walk, then by phone */
  private readonly walks = new Map<string, Map<string, Walker>>();
  /** What each phone has marked, which may not have come yet: by walk, then by phone */
  private readonly marked = new Map<string, Map<string, { readonly at: number; readonly keys: readonly string[] }>>();
  private turn: Promise<unknown> = Promise.resolve();
  private readonly began: number;

  constructor(
    private readonly show: Pick<ShowDoor, 'nextOfWalk'>,
    private readonly lights: Lights,
    private readonly now: () => number = Date.now,
  ) {
    this.began = now();
  }

  /** Everybody else, as they count for what comes next. */
  private others(walkId: string, walker: string): Walker[] {
    const now = this.now();
    return [...(this.walks.get(walkId) ?? [])].flatMap(([id, one]) => {
      const silent = now - one.heardAt;
      if (id === walker || silent > PART_MS) return [];
      return [silent > AWAY_MS ? { ...one, at: '' } : one];
    });
  }

  /** Whatever any phone of these minutes says that it has marked: its marks are on their way. */
  private doneIn(walkId: string): string[] {
    const done = new Set<string>();
    for (const { at, keys } of this.marked.get(walkId)?.values() ?? [])
      if (this.now() - at <= PART_MS) for (const key of keys) done.add(key);
    return [...done];
  }

  /** After a start nobody is given anything new before those who walked on have said what they have in hand. */
  private async gathered(): Promise<void> {
    const left = this.began + GATHER_MS - this.now();
    if (left > 0) await new Promise((done) => setTimeout(done, left));
  }

  /** One step after the other, whosever it is. */
  async step(walkId: string, request: StepRequest): Promise<StepReply> {
    if (request.want === 'next') await this.gathered();
    const next = this.turn.then(() => this.stepNow(walkId, request));
    this.turn = next.catch(() => undefined);
    return next;
  }

  private async stepNow(
    walkId: string,
    { walker, by, part, want, from, done, light, ...rest }: StepRequest,
  ): Promise<StepReply> {
    const others = this.others(walkId, walker);
    const marked = this.marked.get(walkId) ?? new Map<string, { at: number; keys: readonly string[] }>();
    this.marked.set(walkId, marked.set(walker, { at: this.now(), keys: done }));
    const found = await this.show.nextOfWalk({
      ...{ walkId, part, want, from, others, this: rest.this },
      done: this.doneIn(walkId),
      light: light !== undefined && this.lights.isHot,
    });
    if (found.name === undefined) throw new ProblemError('not-here', 'This walk is not in the show any more.');
    if (found.heldBy !== '') throw new ProblemError('taken', `${found.heldBy} has this lamp in hand.`);
    const at = found.item?.key ?? '';
    const walkers = this.walks.get(walkId) ?? new Map<string, Walker>();
    this.walks.set(walkId, walkers.set(walker, { id: holderOf(walker), by, part, at, heardAt: this.now() }));
    const lit = await this.shine(walker, by, at, want, light, found.program);
    const present = others.filter(({ heardAt }) => this.now() - heardAt <= AWAY_MS);
    return { at, ...lit, left: found.left, others: present, states: found.states };
  }

  private async shine(
    walker: string,
    by: string,
    at: string,
    want: StepRequest['want'],
    light: StepRequest['light'],
    program: NextFound['program'],
  ): Promise<Pick<StepReply, 'lighting' | 'trouble'>> {
    if (!light || !program) {
      if (this.lit.delete(walker)) await this.lights.dark(walker);
      if (light && at !== '') return { lighting: 'safe', trouble: 'Taxiarch is safe: nothing is lit.' };
      return { lighting: 'off', trouble: '' };
    }
    if (!program.ok) return { lighting: 'refused', trouble: program.why };
    // Whoever only stays has it lit; if somebody gave it back, that stands.
    if (want === 'stay' && this.lit.get(walker) === at)
      return this.lights.shines(walker)
        ? { lighting: 'on', trouble: '' }
        : { lighting: 'off', trouble: 'What was lit was given back.' };
    const refused = await this.lights.light(walker, by, program.value, light);
    if (refused !== undefined) return { lighting: 'refused', trouble: refused };
    this.lit.set(walker, at);
    return { lighting: 'on', trouble: '' };
  }

  /** What was lit for each phone, by its key */
  private readonly lit = new Map<string, string>();

  async leave(walkId: string, walker: string): Promise<void> {
    this.walks.get(walkId)?.delete(walker);
    this.lit.delete(walker);
    await this.lights.dark(walker);
  }
}
