/** The roll call: asks every port who hangs there, reads each lamp, and keeps what they said. */
import { join } from 'node:path';
import { carriedBy } from '@taxiarch/core/network/machine';
import { heardMachines, matchMachines, type NodePortReport, type NodeReport } from '@taxiarch/core/network/node';
import { Rdm } from '@taxiarch/core/protocol/rdm';
import type { Machine, Model } from '@taxiarch/core/show/records';
import {
  lampPortKey,
  type LampAnswer,
  type LampPort,
  type LampRequest,
  type RollNow,
  type RollPort,
  type RollProgress,
  type SeenLamp,
} from '@taxiarch/core/truth/roll';
import type { EngineHost } from '../bridge/host';
import type { Notices } from '../bridge/notices';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';
import { KeptFile } from '../store/keptFile';
import { getOf, LampReader, withAnswers, type AskLamp } from './reader';

interface Kept {
  /** Collisions that a person left alone, by their keys */
  readonly leftAlone: readonly string[];
  /** A lamp that nobody knew is greeted by a notice. */
  readonly greet: boolean;
}

const keptOf = (found: unknown): Kept | undefined => {
  const { leftAlone, greet } = (found ?? {}) as Partial<Kept>;
  return Array.isArray(leftAlone) && typeof greet === 'boolean' ? { leftAlone, greet } : undefined;
};

/** Lamps that the plan puts on a port */
interface Expected {
  readonly count: number;
  readonly uids: readonly string[];
}
const NOBODY: Expected = { count: 0, uids: [] };

const BEFORE: RollProgress = {
  ...{ running: false, done: 0, more: 0, of: 0, ports: 0, ofPorts: 0, began: 0, ended: 0, cancelled: false, why: '' },
};
const MINUTE_MS = 60_000;

export interface CallWish {
  /** Only these ports; all otherwise */
  readonly ports?: readonly LampPort[] | undefined;
  /** Nodes search their lines anew first. */
  readonly afresh?: boolean | undefined;
}

export class RollCall {
  private readonly seen = new Map<string, SeenLamp>();
  private readonly ports = new Map<string, RollPort>();
  private readonly reader = new LampReader();
  private readonly file: KeptFile<Kept>;
  private progress = BEFORE;
  private running: Promise<void> | undefined;
  private lastEnded = performance.now();
  private readonly timer: NodeJS.Timeout;

  constructor(
    folder: string,
    private readonly host: Pick<EngineHost, 'now' | 'lamp' | 'table' | 'askNoLamps'>,
    private readonly show: Pick<ShowDoor, 'plan' | 'lamps'>,
    private readonly notices: Pick<Notices, 'say'>,
    /** Minutes between calls that begin by themselves; 0 for none */
    private readonly every: () => number,
  ) {
    this.file = new KeptFile(join(folder, 'roll.json'), keptOf, () => ({ leftAlone: [], greet: false }));
    this.timer = setInterval(() => this.callBySelf(), MINUTE_MS / 4).unref();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private callBySelf(): void {
    const every = this.every();
    if (every === 0 || this.running || performance.now() - this.lastEnded < every * MINUTE_MS) return;
    const before = new Set(this.seen.keys());
    try {
      void this.call({}).then(() => this.greet(before));
    } catch {
      // Nothing is known of the wire just now; it is tried again at the next look.
    }
  }

  private greet(before: ReadonlySet<string>): void {
    if (!this.file.read().greet || before.size === 0) return;
    const fresh = [...this.seen.values()].filter(({ uid, says }) => says === 'all' && !before.has(uid));
    for (const { uid, maker, model, address, portAddress } of fresh) {
      const port = this.ports.get(lampPortKey({ address, portAddress }));
      const where = port ? `port ${port.number} of ${port.name}` : address;
      this.notices.say(
        `lamp ${uid}`,
        `A new lamp answers on ${where}: ${maker} ${model}, ${uid}.`,
        'Roll call proposes an address for it: see Arrange.',
      );
    }
  }

  get greets(): boolean {
    return this.file.read().greet;
  }

  setGreet(greet: boolean): void {
    this.file.keep({ ...this.file.read(), greet });
  }

  leaveAlone(key: string, on: boolean): void {
    const { leftAlone, ...rest } = this.file.read();
    const others = leftAlone.filter((one) => one !== key);
    this.file.keep({ ...rest, leftAlone: on ? [...others, key] : others });
  }

  /** All that is known now. */
  now(): RollNow {
    this.lookAtPorts();
    return {
      progress: this.progress,
      seen: [...this.seen.values()],
      ports: [...this.ports.values()],
      leftAlone: this.file.read().leftAlone,
    };
  }

  lamp(uid: string): SeenLamp {
    const found = this.seen.get(uid);
    if (!found) throw new ProblemError('not-here', `No lamp ${uid} has answered yet. Call the roll first.`);
    return found;
  }

  /** The ports as nodes tell of them now; what was asked before is kept as long as the port is there. */
  private lookAtPorts(): void {
    const there = new Set<string>();
    for (const { plan, heard, model, name } of matchMachines(this.show.plan(), heardMachines(this.host.now()))) {
      const node = heard?.node;
      const gone = heard?.gone ?? true;
      if (!node) continue;
      for (const port of node.ports) {
        if (port.direction !== 'out' || !isUsed(plan, port)) continue;
        const found = portNow(node, port, plan, model, name, gone);
        // What drives pixels or draws a picture has no lamps on a cable.
        if (found.state === 'cannot' && plan?.kind !== 'node') continue;
        const key = lampPortKey(found);
        there.add(key);
        const before = this.ports.get(key);
        const state = found.state === 'not asked' && before && KEEPS.has(before.state) ? before.state : found.state;
        this.ports.set(key, before ? { ...before, ...identityOf(found), state } : found);
      }
    }
    for (const key of [...this.ports.keys()]) if (!there.has(key)) this.ports.delete(key);
    for (const [uid, one] of this.seen) if (!there.has(lampPortKey(one))) this.seen.delete(uid);
  }

  /** Begins a call; resolves at its end. Throws if one runs or nobody can be asked. */
  call({ ports, afresh = false }: CallWish): Promise<void> {
    if (this.running) throw new ProblemError('busy', 'A roll call runs already. Wait for its end, or end it.');
    this.lookAtPorts();
    const wanted = ports && new Set(ports.map(lampPortKey));
    const asked = [...this.ports.values()].filter(
      (port) => CAN_BE_ASKED.has(port.state) && (!wanted || wanted.has(lampPortKey(port))),
    );
    if (asked.length === 0)
      throw new ProblemError(
        'not-possible',
        'No port can ask its lamps: no node with RDM answers, or their RDM is off.',
      );
    this.progress = { ...BEFORE, running: true, ofPorts: asked.length, began: Date.now() };
    this.running = this.expected()
      .then((expected) => Promise.all(asked.map((port) => this.callPort(port, afresh, expected(port)))))
      .then(() => this.end(''))
      .catch((error: Error) => this.end(error.message));
    return this.running;
  }

  cancel(): void {
    if (!this.running) throw new ProblemError('nothing-to-do', 'No roll call runs.');
    this.progress = { ...this.progress, cancelled: true };
    this.host.askNoLamps();
  }

  private end(why: string): void {
    this.progress = { ...this.progress, running: false, ended: Date.now(), why };
    for (const port of this.ports.values()) if (port.state === 'asking') this.note(port, { state: 'not asked' });
    this.running = undefined;
    this.lastEnded = performance.now();
  }

  private note(port: LampPort, change: Partial<RollPort>): void {
    const before = this.ports.get(lampPortKey(port));
    if (before) this.ports.set(lampPortKey(port), { ...before, ...change });
  }

  /** For each port the lamps that the plan puts there and that can answer: how many, and the UIDs that are known. */
  private async expected(): Promise<(port: RollPort) => Expected> {
    const { lamp, type } = await this.show.lamps(null);
    const { machine } = this.show.plan();
    const mute = new Set(type.flatMap(({ id, answers }) => (answers === 'yes' ? [] : [id])));
    const byUniverse = new Map<number, { count: number; uids: string[] }>();
    for (const { universe, typeId, uid } of lamp) {
      if (mute.has(typeId) && uid === '') continue;
      const its = byUniverse.get(universe) ?? { count: 0, uids: [] };
      its.count += 1;
      if (uid !== '') its.uids.push(uid);
      byUniverse.set(universe, its);
    }
    return ({ machineId, number }) => {
      const ports = machine.find(({ id }) => id === machineId)?.ports ?? [];
      const planned = ports.find((one) => one.number === number);
      return (planned && byUniverse.get(carriedBy(planned, ports).universe)) ?? NOBODY;
    };
  }

  private async callPort(port: RollPort, afresh: boolean, expected: Expected): Promise<void> {
    const table = await this.host.table(port, afresh);
    if (this.progress.cancelled) return;
    this.progress = { ...this.progress, ports: this.progress.ports + 1, of: this.progress.of + table.uids.length };
    const here = [...this.seen.values()].filter((one) => lampPortKey(one) === lampPortKey(port));
    const known = new Set([...expected.uids, ...here.map(({ uid }) => uid)]);
    const again = port.state === 'asked';
    const state = table.kind === 'known' ? (again ? 'asked' : 'asking') : table.kind;
    this.note(port, { state, found: table.uids.length, at: Date.now(), asked: 0, lost: 0, used: 0 });
    if (table.kind !== 'known') return;
    const found = new Set(table.uids);
    // Whom its node finds no more hangs there no more.
    for (const [uid, one] of this.seen)
      if (lampPortKey(one) === lampPortKey(port) && !found.has(uid)) this.seen.delete(uid);
    const before = await this.host.lamp(port, [], false);
    const ask: AskLamp = (requests) => this.ask(port, requests, before.use);
    const read = async (uid: string): Promise<SeenLamp | undefined> => {
      const one = this.progress.cancelled ? undefined : await this.reader.read(uid, port, ask, Date.now);
      if (one) this.seen.set(uid, { ...one, ...moreOf(this.seen.get(uid)) });
      return one;
    };
    for (const uid of table.uids) {
      if (!(await read(uid))) return;
      this.progress = { ...this.progress, done: this.progress.done + 1 };
    }
    // A lamp is called missing only after a second look: a busy network or node loses answers.
    const late = await this.lookAgain(port, table.uids, known, expected.count, ask);
    if (this.progress.cancelled) return;
    this.progress = { ...this.progress, of: this.progress.of + late.length };
    for (const uid of late) {
      if (!(await read(uid))) return;
      this.progress = { ...this.progress, done: this.progress.done + 1 };
    }
    for (const uid of table.uids) if (this.seen.get(uid)?.says === 'nothing' && !(await read(uid))) return;
    this.note(port, { state: 'asked', found: table.uids.length + late.length });
    // How all are set is known before anybody is asked for the rest.
    for (const uid of [...table.uids, ...late]) {
      const seen = this.seen.get(uid);
      if (this.progress.cancelled) return;
      const more = seen?.says === 'all' ? await this.reader.readMore(seen, ask) : undefined;
      // It may have been set meanwhile.
      const now = this.seen.get(uid);
      if (more && now) this.seen.set(uid, { ...now, ...moreOf(more) });
      this.progress = { ...this.progress, more: this.progress.more + 1 };
    }
  }

  /** UIDs on a port that the first table lacked: the node is asked for it again, and known lamps are asked themselves. */
  private async lookAgain(
    port: RollPort,
    uids: readonly string[],
    known: ReadonlySet<string>,
    count: number,
    ask: AskLamp,
  ): Promise<string[]> {
    const there = new Set(uids);
    const late: string[] = [];
    const add = (uid: string) => {
      if (there.has(uid)) return;
      there.add(uid);
      late.push(uid);
    };
    if (uids.length < count || [...known].some((uid) => !there.has(uid)))
      for (const uid of (await this.host.table(port, false)).uids) add(uid);
    for (const uid of known) {
      if (this.progress.cancelled) return late;
      if (there.has(uid)) continue;
      const [answer] = await ask([getOf(uid, Rdm.DEVICE_INFO)]);
      if (answer?.kind === 'ack' || answer?.kind === 'refused') add(uid);
    }
    return late;
  }

  private async ask(
    port: LampPort,
    requests: readonly LampRequest[],
    from: { readonly sent: number; readonly lost: number; readonly ms: number },
  ): Promise<readonly LampAnswer[]> {
    const { answers, use } = await this.host.lamp(port, requests, false);
    this.note(port, { asked: use.sent - from.sent, lost: use.lost - from.lost, used: Math.round(use.ms - from.ms) });
    return answers;
  }

  /** Asks one lamp, before all others if it is urgent, and gives what it answered. */
  async askNow(uid: string, requests: readonly LampRequest[], urgent = true): Promise<readonly LampAnswer[]> {
    const { answers } = await this.host.lamp(this.lamp(uid), requests, urgent);
    return answers;
  }

  /** What a lamp said of its address and mode, and of its label, is how it is from now on. */
  noteAnswers(uid: string, answers: readonly LampAnswer[]): SeenLamp {
    const next = withAnswers(this.lamp(uid), answers, Date.now());
    this.seen.set(uid, next);
    return next;
  }
}

/** What is read of a lamp after all are known. */
function moreOf(seen: SeenLamp | undefined): Partial<SeenLamp> {
  if (!seen) return {};
  const { sensors, hours, lightHours, strikes, switchedOn, errors } = seen;
  return { sensors, hours, lightHours, strikes, switchedOn, errors };
}

const CAN_BE_ASKED: ReadonlySet<RollPort['state']> = new Set(['asked', 'asking', 'not asked', 'silent']);
/** States that asking brought, and that stay until the node itself tells of another. */
const KEEPS: ReadonlySet<RollPort['state']> = new Set(['asked', 'asking', 'silent']);

/** A port that is planned to be off asks nobody; one that nobody planned may. */
const isUsed = (plan: Machine | undefined, { number }: NodePortReport): boolean =>
  plan === undefined || (plan.ports.find((one) => one.number === number)?.use ?? 'out') === 'out';

const identityOf = ({ machineId, name, number }: RollPort) => ({ machineId, name, number });

function portNow(
  node: NodeReport,
  { number, portAddress, rdm }: NodePortReport,
  plan: Machine | undefined,
  model: Model | undefined,
  name: string,
  gone: boolean,
): RollPort {
  const able = model ? model.rdm : node.rdmSwitch || rdm;
  return {
    ...{ machineId: plan?.id ?? '', name, number, address: node.address, portAddress },
    state: gone ? 'away' : !able ? 'cannot' : rdm ? 'not asked' : 'off',
    ...{ found: 0, asked: 0, lost: 0, used: 0, at: 0 },
  };
}
