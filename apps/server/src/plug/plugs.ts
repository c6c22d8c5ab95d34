/** DMX adapters that people have running: what goes to their thread, what comes from it, and when it all stops. */
import { wireKey } from '@taxiarch/core/base/address';
import { ROUTE_KEYS } from '@taxiarch/core/whole/contract/feed';
import { adapterPlanOf } from '@taxiarch/core/network/machine';
import type { PlugReport, SerialPortReport } from '@taxiarch/core/protocol/plug';
import type { Machine } from '@taxiarch/core/show/records';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { Asks } from '../bridge/asks';
import { Away } from '../bridge/away';
import type { EngineHost } from '../bridge/host';
import type { Notices } from '../bridge/notices';
import type { ShowDoor } from '../bridge/showDoor';
import { Supervised } from '../bridge/supervisor';
import type { SettingsFile } from '../settings';
import type { FromPlug, PassedFrame, PlugOrder, PlugPlace, ToPlug } from './plugMessages';

/** Rows of universes come with the engine's reports; it is looked this often whether they are others. */
const LOOK_MS = 500;

/** The notice that an adapter is gone, or back. */
const noticeOf = (machineId: string): string => `plug ${machineId}`;

interface Wanted {
  /** As it was planned when a person switched it on: what was to take in never sends by a change of the plan. */
  readonly use: 'in' | 'out';
  readonly by: string;
  readonly since: number;
}

interface Source {
  /** Keys that the engine has to keep merged */
  readonly key: number;
  readonly show: number;
  readonly priority: number;
}

/** Where the plug of a machine is; a sentence where nobody has said it. */
export function placeOf({ name, serial, line }: Machine): Result<PlugPlace> {
  const [host = '', port = ''] = line?.at.split(':') ?? [];
  if (host !== '') {
    const number = Number(port);
    return number >= 1 && number <= 65_535
      ? ok({ kind: 'net', host, port: number })
      : refuse('out-of-range', `The port number of ${name} runs from 1 to 65535.`);
  }
  if (serial === '')
    return refuse('not-found', `Say the serial number of ${name}, or at which address of the network it is reached.`);
  return ok({ kind: 'serial', serial });
}

export interface BothEnds {
  /** Null while nobody has merged its universe */
  readonly here: Uint8Array | null;
  readonly plug: Uint8Array | null;
}

/** The frame that differs least from what is at the far end; of equal ones the newest. */
export function nearest(passed: readonly PassedFrame[], far: readonly number[]): PassedFrame | undefined {
  let best: PassedFrame | undefined;
  let least = Infinity;
  for (const frame of passed) {
    let differing = 0;
    for (let i = 0; i < frame.plug.length; i += 1) if (frame.plug[i] !== far[i]) differing += 1;
    if (differing <= least) [best, least] = [frame, differing];
  }
  return best;
}

export class Plugs {
  private readonly thread: Supervised<ToPlug, FromPlug>;
  private readonly wanted = new Map<string, Wanted>();
  private readonly asks = new Asks();
  private told = '';
  private reports: readonly PlugReport[] = [];
  private timer: NodeJS.Timeout | undefined;

  constructor(
    file: URL,
    private readonly host: EngineHost,
    private readonly show: ShowDoor,
    private readonly settings: SettingsFile,
    private readonly notices: Notices,
  ) {
    this.thread = new Supervised({
      file,
      data: () => ({ data: { memory: host.levels.memory } }),
      received: (message) => this.handle(message),
      failed: (why) => {
        notices.say('plug', `The part that keeps DMX adapters failed: ${why}. It is being started again.`);
        this.asks.refuse(new Away('The part that keeps DMX adapters failed; ask again in a moment.'));
        this.reports = [];
      },
      back: (_after, why) => {
        notices.say('plug', `The part that keeps DMX adapters failed: ${why}. It was started again, and goes on.`);
        this.told = '';
        this.follow();
      },
    });
    host.plugs = () => this.reports;
    host.onSafe = () => this.makeSafe();
  }

  async start(): Promise<void> {
    // Inputs send nothing: they come back as they ran. What is kept of them is read before any of it is written again.
    for (const id of this.settings.inputs)
      if (this.machine(id)?.ports[0]?.use === 'in')
        this.wanted.set(id, { use: 'in', by: 'as it ran before', since: Date.now() });
    await this.thread.start();
    this.follow();
    this.timer = setInterval(() => this.follow(), LOOK_MS);
    this.timer.unref();
  }

  private machine(id: string): Machine | undefined {
    return this.show.plan().machine.find((one) => one.id === id && one.line !== null);
  }

  /** The universe of a machine's port as it is merged here, or the route that it sends. */
  private sourceOf({ ports, line }: Machine): Source | undefined {
    const { universe, route } = this.show.plan();
    const [port] = ports;
    const planned = universe.find(({ number }) => number === port?.universe);
    if (!port || !planned) return undefined;
    const index = line?.routeId == null ? -1 : route.findIndex(({ id }) => id === line.routeId);
    const row = index < 0 ? undefined : this.host.routeRow(route[index]!.id);
    const key = row === undefined ? wireKey({ protocol: planned.protocol, number: planned.wire }) : ROUTE_KEYS + row;
    return { key, show: planned.number, priority: port.priority };
  }

  /** What is wanted, as the plan has it now, goes to the thread; what the plan has no more ends. */
  follow(): void {
    const orders: PlugOrder[] = [];
    const keys: number[] = [];
    for (const [id, { use, by, since }] of this.wanted) {
      const machine = this.machine(id);
      const place = machine && placeOf(machine);
      const [port] = machine?.ports ?? [];
      if (!machine || !place?.ok || port?.use !== use) {
        this.leave(id);
        continue;
      }
      // An input is merged as well, so that both its ends can be held against each other.
      const own = this.sourceOf(machine);
      if (own) keys.push(own.key);
      const source = use === 'out' ? own : undefined;
      orders.push({
        machineId: id,
        name: machine.name,
        use,
        place: place.value,
        rate: port.rate,
        slots: machine.line!.slots,
        row: source ? (this.host.rowOf(source.key) ?? null) : null,
        loss: port.loss,
        start: adapterPlanOf(machine).start,
        by,
        since,
      });
    }
    this.settings.keepInputs(orders.filter(({ use }) => use === 'in').map(({ machineId }) => machineId));
    this.host.keepMerged(keys);
    const text = JSON.stringify(orders);
    if (text === this.told) return;
    this.told = text;
    this.thread.tell({ type: 'run', orders });
  }

  private handle(message: FromPlug): void {
    switch (message.type) {
      case 'report':
        this.sayChanges(message.plugs);
        this.reports = message.plugs;
        return;
      case 'frame':
        return this.came(message.machineId, message.slots);
      default:
        this.asks.settle(message.ask, message);
    }
  }

  /** Who went and who came back is said. */
  private sayChanges(next: readonly PlugReport[]): void {
    for (const { machineId, state, why, back } of next) {
      const before = this.reports.find((one) => one.machineId === machineId);
      const name = this.machine(machineId)?.name ?? 'An adapter';
      if (before && before.state !== 'gone' && state === 'gone')
        this.notices.say(noticeOf(machineId), `${name} is gone: ${why}`, 'It goes on by itself when it is back.');
      else if (before && back > before.back) this.notices.say(noticeOf(machineId), `${name} is back, and goes on.`);
    }
  }

  /** Slots that came by an input are a stream on its universe. */
  private came(machineId: string, slots: Uint8Array): void {
    const machine = this.machine(machineId);
    const source = machine && this.sourceOf(machine);
    if (!machine || !source || machine.ports[0]?.use !== 'in') return;
    this.host.plugged({ key: source.key, id: machine.id, name: machine.name, priority: source.priority, slots });
  }

  /** Switches an adapter on or off; output needs hot. */
  run(id: string, on: boolean, by: string): Result<null> {
    const machine = this.machine(id);
    if (!machine) return refuse('not-found', 'This adapter is not in the show.');
    if (!on) {
      this.leave(id);
      this.follow();
      return ok(null);
    }
    const place = placeOf(machine);
    if (!place.ok) return place;
    const use = machine.ports[0]?.use;
    if (use !== 'out' && use !== 'in')
      return refuse(
        'not-possible',
        `The port of ${machine.name} is planned as ${use ?? 'nothing'}; make it an output or an input.`,
      );
    if (use === 'out' && !this.host.now().output.hot)
      return refuse('taken', 'Taxiarch is safe and sends nothing, not out of a plug either. Make it hot first.');
    if (!this.sourceOf(machine))
      return refuse('not-possible', `Universe ${machine.ports[0]!.universe} is not in the show.`);
    if (this.wanted.get(id)?.use !== use) this.wanted.set(id, { use, by, since: Date.now() });
    this.follow();
    return ok(null);
  }

  /** What was said of an adapter that is not wanted any more is over. */
  private leave(id: string): void {
    this.wanted.delete(id);
    this.notices.dismiss(noticeOf(id));
  }

  /** Nothing leaves any plug any more; inputs stay. */
  makeSafe(): void {
    let stopped = false;
    for (const id of this.wanted.keys())
      if (this.machine(id)?.ports[0]?.use !== 'in') {
        this.leave(id);
        stopped = true;
      }
    if (stopped) this.follow();
  }

  report(): readonly PlugReport[] {
    return this.reports;
  }

  private ask(message: (ask: number) => ToPlug): Promise<FromPlug> {
    if (!this.thread.up) return Promise.reject(new Away('DMX adapters are being opened; ask again in a moment.'));
    return this.asks.ask<FromPlug>((ask) => this.thread.tell(message(ask)));
  }

  async ports(): Promise<{ readonly ports: readonly SerialPortReport[]; readonly why: string }> {
    const found = await this.ask((ask) => ({ type: 'list', ask }));
    return found.type === 'ports' ? found : { ports: [], why: '' };
  }

  /**
   * The levels at both ends. What is at the far end (`far`) left the plug a while ago: it is held against the frame that
   * it comes nearest to. An input is held against its universe as it stands.
   */
  async values(id: string, far: readonly number[] | undefined): Promise<BothEnds | undefined> {
    const machine = this.machine(id);
    const source = machine && this.sourceOf(machine);
    if (!source) return undefined;
    const found = await this.ask((ask) => ({ type: 'values', machineId: id, ask }));
    const passed = found.type === 'values' ? found.passed : [];
    const frame = far ? nearest(passed, far) : passed.at(-1);
    if (machine.ports[0]?.use === 'out' && frame) return frame;
    const [here, owners] = [new Uint8Array(512), new Uint8Array(512)];
    const row = this.wanted.has(id) ? this.host.rowOf(source.key) : undefined;
    const filled = row !== undefined && this.host.levels.version(row) > 0;
    if (filled) this.host.levels.read(row, here, owners);
    return { here: filled ? here : null, plug: frame?.plug ?? null };
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    await this.thread.stop({ type: 'stop' });
  }
}
