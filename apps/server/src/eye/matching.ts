/** Matching by eye: the session that runs, what it lights, and what each answer sets. It outlives phones and restarts. */
import { join } from 'node:path';
import {
  answered,
  eyeSession,
  itemOfUid,
  keyOfItem,
  lit,
  plannedStretches,
  standOf,
  takenBack,
  tapped,
  withOutcome,
  type EyeAnswer,
  type EyeReply,
  type EyeSession,
} from '@taxiarch/core/proving/eye';
import { Patch } from '@taxiarch/core/rig/patch';
import { checkWith, type Lamp } from '@taxiarch/core/show/records';
import { type SeenLamp } from '@taxiarch/core/truth/roll';
import type { EngineHost } from '../bridge/host';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';
import type { RollCall } from '../roll/rollCall';
import type { LampSetter } from '../roll/setter';
import { KeptFile } from '../store/keptFile';
import { goOn, guessesOf, likelyOf, wordsOf, refuseTap, setAndWrite, slotsIn, type About } from './answers';
import { Candidates } from './candidates';
import { Showing } from './showing';
import { wantedOfLamps, wantedOfStretches } from './wanted';

export interface EyeWish {
  readonly by: string;
  /** Lamps that answer, or stretches of slots */
  readonly how: 'asked' | 'stretches';
  readonly lampIds: readonly string[];
  /** Which matches are made anew */
  readonly forget: 'none' | 'last' | 'all';
}

export interface EyeGiven {
  /** What it is about, by its key */
  readonly lit: string;
  readonly answer: EyeAnswer;
  readonly lampIds: readonly string[];
  /** A person was asked, and means it. */
  readonly sure?: boolean | undefined;
}

interface Kept {
  readonly running: EyeSession | null;
  /** The one that ended last: its matches are the new ones. */
  readonly last: EyeSession | null;
}

const sessionOf = (found: unknown): EyeSession | null => {
  const checked = checkWith<EyeSession>(eyeSession.rule, found);
  return checked.ok ? checked.value : null;
};
const keptOf = (found: unknown): Kept | undefined =>
  typeof found === 'object' && found !== null
    ? { running: sessionOf((found as Kept).running), last: sessionOf((found as Kept).last) }
    : undefined;

/** Nobody looks on: a phone asks every second. */
const ALONE_MS = 6000;
const LOOK_MS = 1000;

export class Matching {
  private readonly file: KeptFile<Kept>;
  private about: About | undefined;
  private readonly showing: Showing;
  private lookedAt = -Infinity;
  /** Why nothing can be shown just now; empty if it can */
  private waits = '';
  private darkening = false;
  /** One change of light after the other. */
  private turn: Promise<void> = Promise.resolve();

  constructor(
    folder: string,
    private readonly host: Pick<EngineHost, 'ask' | 'now'>,
    private readonly show: Pick<ShowDoor, 'plan' | 'lamps' | 'propose'>,
    private readonly roll: RollCall,
    private readonly setter: LampSetter,
  ) {
    this.file = new KeptFile(join(folder, 'match-by-eye.json'), keptOf, () => ({ running: null, last: null }));
    this.showing = new Showing(host, setter);
    setInterval(() => this.lookAfter(), LOOK_MS).unref();
  }

  private get session(): EyeSession | null {
    return this.file.read().running;
  }

  private keep(running: EyeSession): void {
    this.file.keep({ ...this.file.read(), running });
  }

  private get isHot(): boolean {
    try {
      return this.host.now().output.hot;
    } catch {
      return false;
    }
  }

  private async read(): Promise<About> {
    const { lamp, type } = await this.show.lamps(null);
    const patch = new Patch(lamp, type);
    const guesses = guessesOf(this.show.plan(), patch, this.roll.now());
    this.about = { lamps: new Map(lamp.map((one) => [one.id, one])), patch, types: type, guesses };
    return this.about;
  }

  private candidates({ types, patch }: About): Candidates {
    const { seen, ports } = this.roll.now();
    return new Candidates(seen, ports, this.show.plan(), patch, types);
  }

  async begin({ by, how, lampIds, forget }: EyeWish): Promise<EyeReply> {
    if (this.session)
      throw new ProblemError('busy', `${this.session.by} matches lamps by eye already. Go on with it, or end it.`);
    if (!this.isHot)
      throw new ProblemError('safe', 'Taxiarch is safe and lights nothing. Make it hot to match by eye.');
    const about = await this.read();
    const lamps = lampIds.flatMap((id) => about.lamps.get(id) ?? []);
    if (lamps.length === 0) throw new ProblemError('not-understood', 'Choose the lamps that are to be matched.');
    const last = this.file.read().last;
    const fresh = forget === 'last' && last ? new Set(tapped(last).keys()) : new Set<string>();
    const keeps = ({ id, uid }: Lamp) => uid !== '' && forget !== 'all' && !fresh.has(id);
    const waiting = how === 'asked' ? this.begunWith(about, lamps, keeps) : this.stretches(about, lamps);
    if (how === 'asked') await this.setter.keep(waiting.map(({ uid }) => this.roll.lamp(uid)));
    const session: EyeSession = {
      ...{ by, how, between: false, first: waiting, waiting, steps: [] },
      lampIds: lamps.filter((one) => how === 'stretches' || !keeps(one)).map(({ id }) => id),
    };
    this.keep(session);
    this.lookedAt = performance.now();
    await this.light();
    return this.now();
  }

  private begunWith(about: About, lamps: readonly Lamp[], keeps: (lamp: Lamp) => boolean): EyeSession['waiting'] {
    const chosen = new Set(lamps.map(({ id }) => id));
    const known = [...about.lamps.values()].filter((one) => one.uid !== '' && (!chosen.has(one.id) || keeps(one)));
    // Whoever is surely another lamp is not touched.
    const sure = [...about.guesses].flatMap(([uid, guess]) => (guess.sure && !chosen.has(guess.lampId) ? [uid] : []));
    const others = new Set([...known.map(({ uid }) => uid), ...sure]);
    const found = this.candidates(about).on(lamps, others);
    if (found.length === 0)
      throw new ProblemError(
        'not-possible',
        'No lamp that answers is left to be matched there. Call the roll first, or match without asking.',
      );
    return found.map(({ uid }) => itemOfUid(uid));
  }

  private stretches({ patch }: About, lamps: readonly Lamp[]): EyeSession['waiting'] {
    return plannedStretches(lamps.flatMap(({ id }) => patch.lamp(id) ?? []));
  }

  private running(): EyeSession {
    if (!this.session) throw new ProblemError('nothing-to-do', 'Nobody matches lamps by eye now.');
    return this.session;
  }

  /** A tap, or that it was skipped or not seen. What cannot be right is asked back. */
  async answer({ lit: key, answer, lampIds, sure = false }: EyeGiven): Promise<EyeReply> {
    const session = this.running();
    this.lookedAt = performance.now();
    const about = this.about ?? (await this.read());
    const item = lit(session);
    if (!item || keyOfItem(item) !== key)
      throw new ProblemError(
        'stale-edit',
        'That one was answered already, perhaps on another phone. Look what is lit now.',
      );
    const lamps = lampIds.flatMap((id) => about.lamps.get(id) ?? []);
    if (answer === 'tapped') refuseTap(session, item, lamps, sure, about, (uid) => this.roll.lamp(uid));
    this.keep(goOn(answered(session, answer, answer === 'tapped' ? lampIds : [], slotsIn(about)), about));
    const [lamp] = lamps;
    if (answer === 'tapped' && item.uid !== '' && lamp) this.settle(item.uid, lamp.id);
    await this.light();
    return this.now();
  }

  /** Sets the lamp as the plan has it now and writes down who it is; the next is lit meanwhile. */
  private settle(uid: string, lampId: string): void {
    setAndWrite(
      { show: this.show, roll: this.roll, setter: this.setter },
      uid,
      lampId,
      this.session?.by ?? this.file.read().last?.by ?? 'Taxiarch',
    )
      .catch((error: Error) => ({ set: 'not known', outcome: error.message }) as const)
      .then((came) => {
        const session = this.session;
        if (session) this.keep(withOutcome(session, uid, came));
        return this.light();
      })
      .catch(() => undefined);
  }

  async back(): Promise<EyeReply> {
    const session = this.running();
    this.lookedAt = performance.now();
    if (session.steps.length === 0) throw new ProblemError('nothing-to-do', 'Nothing was answered yet.');
    const about = this.about ?? (await this.read());
    this.keep(takenBack(session, slotsIn(about), (one) => goOn(one, about)));
    await this.light();
    return this.now();
  }

  /** Ended first, then dark: nothing that is still on its way lights anything again. */
  async end(): Promise<EyeReply> {
    const session = this.running();
    this.file.keep({ running: null, last: session });
    await this.darken(lit(session)?.uid);
    return this.now(session);
  }

  private known(uid: string): SeenLamp | undefined {
    try {
      return this.roll.lamp(uid);
    } catch {
      return undefined;
    }
  }

  /** Shows how things stand, one change after the other. */
  private light(): Promise<void> {
    this.turn = this.turn.then(() => this.lightNow()).catch((error: Error) => void (this.waits = error.message));
    return this.turn;
  }

  private async lightNow(): Promise<void> {
    const { session } = this;
    if (!session || !this.isHot) return;
    const about = this.about ?? (await this.read());
    this.waits = '';
    if (session.how === 'asked' && session.waiting.some(({ uid }) => !this.known(uid))) return this.askAgain();
    const wanted =
      session.how === 'asked'
        ? wantedOfLamps(session, this.candidates(about), (uid) => this.known(uid))
        : wantedOfStretches(session, about.patch, this.show.plan().universe);
    await this.showing.show(wanted, lit(session)?.uid ?? '', session.by);
  }

  /** After a restart nobody has answered yet. */
  private askAgain(): void {
    this.waits = 'The lamps are asked again first.';
    if (this.roll.now().progress.running) return;
    this.roll.call({}).then(
      () => this.light(),
      (error: Error) => (this.waits = error.message),
    );
  }

  /** Gives everything back, after the changes of light that were begun before. */
  private darken(uid?: string): Promise<void> {
    this.darkening = true;
    this.turn = this.turn
      .then(() => this.showing.dark(uid))
      .catch((error: Error) => void (this.waits = error.message))
      .finally(() => (this.darkening = false));
    return this.turn;
  }

  /** What was not given back at once, because the engine was away, is given back here. */
  private lookAfter(): void {
    if (!this.showing.isOn) return;
    if (!this.session || !this.isHot || performance.now() - this.lookedAt > ALONE_MS) void this.darken();
  }

  /** How it stands, for a phone that looks on; what was dark because nobody did is lit again. */
  async look(): Promise<EyeReply> {
    this.lookedAt = performance.now();
    if (this.session && this.isHot && (this.darkening || !this.showing.isOn)) await this.light();
    return this.now();
  }

  private async now(session = this.session): Promise<EyeReply> {
    const nothing = { running: null, now: '', likely: '', left: 0, lamps: [], lighting: 'on', trouble: '' } as const;
    if (!session) return nothing;
    const about = this.about ?? (await this.read());
    const lamps = session.lampIds.flatMap((id) => about.lamps.get(id) ?? []);
    return {
      running: session,
      now: wordsOf(session, (uid) => this.known(uid)),
      likely: likelyOf(session, lamps, about),
      left: session.waiting.length,
      lamps: lamps.map((lamp) => ({ id: lamp.id, ...standOf(session, lamp) })),
      lighting: !this.isHot ? 'safe' : this.showing.isOn || session.waiting.length === 0 ? 'on' : 'paused',
      trouble: this.waits || this.showing.trouble,
    };
  }
}
