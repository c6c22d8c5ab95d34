/** Practising: faults planted in the stand-ins and nowhere else, the practice that runs, and everybody's marks. */
import { join } from 'node:path';
import { CAUSES } from '@taxiarch/core/truth/diagnose';
import type { PracticeReply, PracticeRequest, Settings } from '@taxiarch/core/whole/contract';
import type { Hand } from '@taxiarch/core/truth/fault';
import type { PushResult } from '@taxiarch/core/network/node';
import { LAST_NIGHT, Practice, nightOf, type Mark, type PracticeEnd } from '@taxiarch/core/truth/practise';
import type { Subject } from '@taxiarch/core/show/records';
import type { EngineHost } from '../bridge/host';
import type { Notices } from '../bridge/notices';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';
import { KeptFile } from '../store/keptFile';
import type { Bench } from './bench';

const MOST_MARKS = 1000;
const TITLES = CAUSES.map(({ id, title }) => ({ id, title }));
/** What decides where packets go. */
const WAYS = ['interface', 'artnetInterface', 'sendIpv6'] as const satisfies readonly (keyof Settings)[];

const marksOf = (found: unknown): readonly Mark[] | undefined =>
  Array.isArray(found) && found.every((one: Partial<Mark>) => typeof one?.by === 'string' && typeof one.at === 'string')
    ? (found as Mark[])
    : undefined;

const isLoopback = (address: string | undefined): boolean => address?.startsWith('127.') ?? false;

export class Practising {
  private readonly file: KeptFile<readonly Mark[]>;
  private running: Practice | undefined;
  private last: PracticeEnd | null = null;

  constructor(
    folder: string,
    private readonly bench: Bench,
    private readonly host: Pick<EngineHost, 'now'>,
    private readonly show: Pick<ShowDoor, 'plan'>,
    notices: Pick<Notices, 'say'>,
  ) {
    this.file = new KeptFile(join(folder, 'marks.json'), marksOf, () => []);
    if (this.file.damaged)
      notices.say(
        'marks',
        'The marks of those who practised were damaged; those from before the last are in use.',
        `The damaged file was kept as ${this.file.damaged.aside}.`,
      );
  }

  /** Why nobody can practise here; empty if one can. Nothing of it may ever reach a real network. */
  private get cannot(): string {
    if (!this.bench.isThere) return 'There are no stand-ins: this is a real network, and nothing is planted in one.';
    const { interface: sacn, artnetInterface: artnet } = this.host.now();
    if (!isLoopback(sacn?.address) || !isLoopback(artnet?.address))
      return 'Taxiarch is on a real network. Choose the loopback interface under This computer to practise.';
    const names = new Set(this.show.plan().machine.map(({ id }) => id));
    return nightOf(1, 1, 'easy').every(({ hands }) => hands.every(({ id }) => names.has(`machine-${id}`)))
      ? ''
      : 'The stand-ins belong to the show Night Ferry. Open it under Show to practise.';
  }

  private readonly nameOf = (id: string): string => {
    const { machine, link } = this.show.plan();
    return machine.find((one) => one.id === id)?.name ?? link.find((one) => one.id === id)?.name ?? '';
  };

  private get practice(): Practice {
    if (!this.running) throw new ProblemError('nothing-to-do', 'Nobody practises now.');
    return this.running;
  }

  read(): PracticeReply {
    return {
      cannot: this.cannot,
      running: this.running?.now() ?? null,
      last: this.running ? null : this.last,
      marks: this.file.read(),
      causes: TITLES,
    };
  }

  async begin({ author, count, hard, number }: PracticeRequest): Promise<PracticeReply> {
    if (this.running) throw new ProblemError('taken', `${this.running.now().by} practises already. End that first.`);
    if (this.cannot !== '') throw new ProblemError('not-possible', this.cannot);
    const night = number ?? 1 + Math.floor(Math.random() * LAST_NIGHT);
    const faults = nightOf(night, count, hard);
    await this.bench.reset();
    try {
      await this.bench.plant(faults.flatMap(({ hands }) => hands));
    } catch (error) {
      // Half a night is none: what was planted is taken out again.
      await this.bench.reset();
      throw error;
    }
    const setup = { number: night, hard, by: author, began: Date.now() };
    this.running = new Practice(setup, faults, this.nameOf);
    return this.read();
  }

  async name(about: Subject, cause: string): Promise<{ right: boolean; practice: PracticeReply }> {
    const right = this.practice.name(about, cause, Date.now());
    await this.endIfOver();
    return { right, practice: this.read() };
  }

  hint(): PracticeReply {
    if (this.practice.hint() === undefined) throw new ProblemError('nothing-to-do', 'All hints are given.');
    return this.read();
  }

  looked(screen: string): void {
    this.running?.looked(screen, Date.now());
  }

  async pushed(results: readonly PushResult[]): Promise<void> {
    for (const { machineId, trouble, fields } of results)
      if (trouble === '' && fields.length > 0 && fields.every(({ state }) => state === 'done'))
        this.running?.pushed(machineId, Date.now());
    await this.endIfOver();
  }

  async handled(hand: Hand): Promise<void> {
    this.running?.handled(hand, Date.now());
    await this.endIfOver();
  }

  private async endIfOver(): Promise<void> {
    if (this.running?.isOver) await this.end();
  }

  async end(): Promise<PracticeReply> {
    const { practice } = this;
    practice.end(Date.now());
    this.last = practice.report(Date.now());
    this.running = undefined;
    this.file.keep([this.last.mark, ...this.file.read()].slice(0, MOST_MARKS));
    await this.bench.reset();
    return this.read();
  }

  /** Refuses to make all as it was shipped while somebody looks for what is wrong. */
  refuseReset(hand: Hand): void {
    if (this.running && 'reset' in hand)
      throw new ProblemError(
        'not-possible',
        'Somebody practises on the stand-ins. End that first: it makes all as it was.',
      );
  }

  /** Refuses what would lead packets elsewhere while faults are planted. */
  refuse(changes: Partial<Settings>): void {
    if (this.running && WAYS.some((way) => way in changes))
      throw new ProblemError(
        'not-possible',
        'Somebody practises on the stand-ins: the network stays as it is until that is ended.',
      );
  }
}
