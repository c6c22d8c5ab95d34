/**
 * The router: universes heard are sent on as others while a person has their routes running. A route
 * with one input passes on packet for packet; one with several sends at DMX's own pace.
 */
import type { RouterPlan } from '../../bridge/engineMessages';
import { SLOTS, wireKey, type WireUniverse } from '@taxiarch/core/base/address';
import { RouteMixer, type ControlReport, type Incoming, type RouteReport } from '@taxiarch/core/signal/route';
import { MOST_ROUTES } from '@taxiarch/core/whole/contract/feed';
import { scalesOf, type Reach } from '@taxiarch/core/network/flow';
import { encodeDiscoveryPages, formatCid } from '@taxiarch/core/protocol/sacn';
import { OWN_NAME } from '@taxiarch/core/signal/stream';
import type { Control, Route } from '@taxiarch/core/show/records';
import { RoutedOutput, type FrameLeft, type RouteSender } from './routedOutput';
import { SyncOut } from '../output/syncOut';
import { MOST_UNIVERSES, type SharedLevels } from '../../bridge/shared';
import type { Sending } from '../../keep/lastWords';
import type { LiveUniverse } from '../listening/universe';

/** A full frame of DMX512 takes this long. */
const FRAME_MS = 1000 / 44;
/** What does not change is still sent this often, so that nobody takes the route for lost. */
const KEEP_ALIVE_MS = 900;

export interface RouterSurroundings extends RouteSender {
  universe(key: number): LiveUniverse | undefined;
  timeoutOf(key: number): number;
  isHot(): boolean;
}

interface Input {
  readonly key: number;
  readonly sender: string;
}

interface Line {
  route: Route;
  readonly row: number;
  mixer: RouteMixer;
  output: RoutedOutput;
  inputs: readonly Input[];
  parts: readonly (Input | undefined)[];
  reach: readonly Reach[];
  scales: Float32Array | null;
  running: boolean;
  since: number;
  by: string;
  /** Something came or was changed since it was last mixed */
  dirty: boolean;
  /** Sends as soon as it may, and not only with the next packet that comes in */
  owing: boolean;
  sentAt: number;
  heard: boolean[];
  heardParts: boolean[];
  reported: { packets: number; at: number; rate: number };
}

const inputOf = (wire: WireUniverse, sender: string): Input => ({ key: wireKey(wire), sender });

export class Router {
  private readonly lines = new Map<string, Line>();
  private byKey = new Map<number, Line[]>();
  private controls: readonly Control[] = [];
  private readonly masters = new Map<string, number>();
  private readonly levels = new Map<string, number>();
  private watched: ReadonlySet<number> = new Set();
  private readonly freeRows = Array.from({ length: MOST_ROUTES }, (_, i) => MOST_ROUTES - 1 - i);

  private readonly syncs: SyncOut;

  constructor(
    private readonly cid: Uint8Array,
    private readonly shared: SharedLevels,
    private readonly around: RouterSurroundings,
  ) {
    this.syncs = new SyncOut(cid, {
      sacn: (bytes, universe, by) => around.sacn(bytes, universe, null, by),
      artnet: (bytes, by) => {
        const address = around.broadcastAddress(by);
        if (address !== undefined) around.artnet(bytes, address, by);
      },
    });
  }

  /** Takes a new plan: routes that are as they were go on untouched, changed ones go on changed, gone ones end. */
  setPlan({ routes, controls, reach }: RouterPlan): void {
    const wanted = new Set(routes.map(({ id }) => id));
    for (const [id, line] of this.lines)
      if (!wanted.has(id)) {
        this.stop(line);
        this.lines.delete(id);
        this.freeRows.push(line.row);
      }
    for (const route of routes)
      this.plan(
        route,
        reach.filter(({ routeId }) => routeId === route.id),
      );
    this.controls = controls;
    this.byKey = new Map();
    for (const line of this.lines.values())
      for (const key of new Set([...line.inputs, ...line.parts].flatMap((input) => input?.key ?? [])))
        this.byKey.set(key, [...(this.byKey.get(key) ?? []), line]);
  }

  private plan(route: Route, reach: readonly Reach[]): void {
    const there = this.lines.get(route.id);
    if (there && there.route.rev === route.rev && sameReach(there.reach, reach)) return;
    const row = there?.row ?? this.freeRows.pop();
    if (row === undefined) return;
    // A route that goes elsewhere now ends where it went before.
    const moved = there && wireKey(there.route.out) !== wireKey(route.out);
    if (there?.running && moved) there.output.end();
    const mixer = new RouteMixer(route);
    if (there) mixer.backup.current = Math.min(there.mixer.backup.current, route.inputs.length - 1);
    this.lines.set(route.id, {
      running: false,
      since: 0,
      by: '',
      sentAt: -Infinity,
      heard: [],
      heardParts: [],
      reported: { packets: 0, at: 0, rate: 0 },
      ...there,
      route,
      row,
      mixer,
      output:
        there && !moved ? there.output.for(route) : new RoutedOutput(route, this.cid, this.around, this.frameLeft),
      inputs: route.inputs.map(({ wire, sender }) => inputOf(wire, sender)),
      parts: route.parts.map(({ from }) => (from ? inputOf(from.wire, '') : undefined)),
      reach,
      scales: scalesOf(route, reach, this.masters),
      dirty: true,
      owing: true,
    });
  }

  /** The sACN streams of running routes, for whoever must end them if this cannot. */
  sending(inUse: string): Sending[] {
    const cid = formatCid(this.cid);
    return [...this.lines.values()].flatMap((line) => (line.running ? (line.output.sending(cid, inUse) ?? []) : []));
  }

  /** Universes that must be joined: those that routes and controls hear, and those that routes send, to be seen in Listen. */
  get sacnUniverses(): number[] {
    const keys = [
      ...this.byKey.keys(),
      ...this.controls.map(({ wire }) => wireKey(wire)),
      ...[...this.lines.values()].map(({ route }) => wireKey(route.out)),
      ...[...this.lines.values()].flatMap(({ route: { out, sync } }) =>
        out.protocol === 'sacn' && sync > 0 ? sync : [],
      ),
    ];
    return [...new Set(keys)].filter((key) => key < 0x10000);
  }

  /** Universe discovery packets for the sACN universes that routes send now (E1.31-2018, clause 8). */
  discovery(): Uint8Array[] {
    const sent = [...this.lines.values()].flatMap(({ running, route: { out } }) =>
      running && out.protocol === 'sacn' ? [out.number] : [],
    );
    return sent.length === 0 ? [] : encodeDiscoveryPages(this.cid, OWN_NAME, sent);
  }

  /** Switches routes on or off; returns a sentence if that cannot be. */
  run(ids: readonly string[], on: boolean, by: string, at: number): string | undefined {
    const lines = ids.map((id) => this.lines.get(id));
    if (lines.some((line) => !line)) return 'This route is not in the show.';
    if (on && !this.around.isHot()) return 'Taxiarch is safe and sends nothing. Make it hot first.';
    for (const line of lines as Line[]) {
      if (line.running === on) continue;
      if (!on) this.stop(line);
      else Object.assign(line, { running: true, since: at, by, dirty: true, owing: true, sentAt: -Infinity });
    }
    return undefined;
  }

  private readonly frameLeft: FrameLeft = (sync, by) => this.syncs.frame(sync, by);

  private stop(line: Line): void {
    if (line.running) line.output.end();
    Object.assign(line, { running: false, since: 0, by: '' });
  }

  stopAll(): void {
    for (const line of this.lines.values()) this.stop(line);
  }

  giveBack(id: string): string | undefined {
    const line = this.lines.get(id);
    if (!line) return 'This route is not in the show.';
    line.mixer.giveBack(line.inputs.map((_, i) => (line.heard[i] ? SILENCE : undefined)));
    line.dirty = line.owing = true;
    return undefined;
  }

  watch(keys: ReadonlySet<number>): void {
    this.watched = keys;
    for (const line of this.lines.values()) line.dirty = true;
  }

  /** Levels came on a universe: routes with one input pass them on at once. */
  came(key: number, now: number): void {
    const lines = this.byKey.get(key);
    if (!lines) return;
    for (const line of lines) {
      line.dirty = true;
      line.owing = true;
      if (line.running && line.inputs.length === 1 && line.inputs[0]!.key === key) this.pass(line, now);
    }
  }

  /** Sends what is due at `now` and looks at controls; to be called every few milliseconds. */
  tick(now: number): void {
    this.lookAtControls(now);
    for (const line of this.lines.values()) {
      const shown = this.watched.has(line.row);
      if (line.running) {
        const since = now - line.sentAt;
        // With one input its own packets carry along what changed elsewhere, as long as they come.
        const pace = line.inputs.length === 1 ? 2 * FRAME_MS : FRAME_MS;
        if ((line.owing && since >= pace) || since >= KEEP_ALIVE_MS) this.pass(line, now);
      } else if (shown && line.dirty) this.mix(line, now);
    }
    // Frames of all routes that have left since the last look are let out by one packet.
    this.syncs.flush();
  }

  /** Every half second: whose inputs fell silent is known even where nothing comes in any more. */
  sweep(now: number): void {
    for (const line of this.lines.values()) this.listen(line, now);
  }

  private pass(line: Line, now: number): void {
    if (!this.mix(line, now)) {
      // All inputs are silent and nothing is held by hand: there is nothing to send.
      if (line.sentAt > 0) line.output.end();
      line.sentAt = -Infinity;
      line.owing = false;
      return;
    }
    line.output.send(line.mixer.values);
    line.sentAt = now;
    line.owing = false;
  }

  private listen(line: Line, now: number): { inputs: (Incoming | undefined)[]; parts: (Incoming | undefined)[] } {
    if (line.route.merge === 'ltp') for (const { key } of line.inputs) this.around.universe(key)?.rememberChanges();
    const inputs = line.inputs.map((input) => this.incoming(input, now));
    const parts = line.parts.map((input) => input && this.incoming(input, now));
    line.heard = inputs.map((one) => one !== undefined);
    line.heardParts = parts.map((one) => one !== undefined);
    return { inputs, parts };
  }

  /** Whether there is anything to send. */
  private mix(line: Line, now: number): boolean {
    const { inputs, parts } = this.listen(line, now);
    line.mixer.mix(inputs, parts, line.scales);
    line.dirty = false;
    if (this.watched.has(line.row))
      this.shared.write(MOST_UNIVERSES - 1 - line.row, line.mixer.values, line.mixer.owners);
    return (
      line.heard.includes(true) || line.heardParts.includes(true) || line.route.parts.some(({ by }) => by === 'hand')
    );
  }

  private incoming({ key, sender }: Input, now: number): Incoming | undefined {
    return this.around.universe(key)?.incoming(sender, now, this.around.timeoutOf(key));
  }

  private lookAtControls(now: number): void {
    let moved = false;
    for (const { id, wire, channel, does, threshold, target } of this.controls) {
      const level = this.incoming(inputOf(wire, ''), now)?.values[channel - 1];
      const before = this.levels.get(id);
      if (level === before) continue;
      if (level === undefined) {
        this.levels.delete(id);
        continue;
      }
      this.levels.set(id, level);
      if (does === 'master') {
        this.masters.set(id, level / 255);
        moved = true;
      } else if (before !== undefined && target.kind === 'route' && level >= threshold !== before >= threshold)
        this.run([target.id], level >= threshold, 'a channel of the input map', Date.now());
    }
    if (!moved) return;
    for (const line of this.lines.values())
      if (line.reach.length > 0) {
        line.scales = scalesOf(line.route, line.reach, this.masters);
        line.dirty = line.owing = true;
      }
  }

  report(now: number): { routes: RouteReport[]; controls: ControlReport[] } {
    return {
      routes: [...this.lines.values()].map((line) => {
        const { output, reported } = line;
        const seconds = (now - reported.at) / 1000;
        if (seconds > 0.4)
          line.reported = {
            at: now,
            packets: output.packets,
            rate: Math.round((output.packets - reported.packets) / seconds),
          };
        return {
          id: line.route.id,
          row: line.row,
          running: line.running,
          since: line.since,
          by: line.by,
          inputs: line.heard,
          parts: line.heardParts,
          current: line.route.merge === 'backup' ? line.mixer.backup.current : -1,
          rate: line.running ? line.reported.rate : 0,
          to: line.running ? output.to : [],
        };
      }),
      controls: this.controls.map(({ id }) => ({ id, level: this.levels.get(id) ?? null })),
    };
  }
}

const SILENCE: Incoming = { values: new Uint8Array(SLOTS), count: SLOTS, changedAt: null };

const sameReach = (a: readonly Reach[], b: readonly Reach[]): boolean =>
  a.length === b.length &&
  a.every(({ controlId, slots }, i) => controlId === b[i]!.controlId && String(slots) === String(b[i]!.slots));
