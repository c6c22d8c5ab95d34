/**
 * A node: answers polls, takes its ports' universes, merges as its model can, sends what comes in at
 * its inputs, and is set by Address, Input, IpProg or at its front panel.
 */
import type { Server } from 'node:http';
import { multicastGroup } from '@taxiarch/core/base/address';
import {
  ArtNet,
  type ArtNetMessage,
  type ArtPoll,
  decodeArtNet,
  encodeIpProgReply,
  encodePollReply,
  Subscribers,
  pollMeans,
} from '@taxiarch/core/protocol/artnet';
import type { StandIn, StandInPort } from '@taxiarch/core/whole/contract';
import type { HungRig } from '@taxiarch/core/truth/hung';
import { whyNot } from '@taxiarch/core/network/machine';
import { OutputPort } from '@taxiarch/core/network/port';
import { dataUniverse, decodeSacn, formatCid, Sacn } from '@taxiarch/core/protocol/sacn';
import { PLAIN_PORT } from '@taxiarch/core/show/records';
import { Inputs } from './inputs';
import { leavingOf, type Leaving } from './leaving';
import { NodeRdm } from './nodeRdm';
import { BROADCAST, type Ports } from './network';
import { openPanel, type PanelAct } from './panel';
import { obeyAddress, obeyInput, obeyIpProg, type Acts } from './programming';
import { replyPages } from './replies';
import {
  Memory,
  rulesOf,
  settingsOf,
  turnTo,
  wireOf,
  type BoxSettings,
  type BoxSetup,
  type PortSettings,
} from './settings';
import { Wire, sound, type Cable } from './wire';

const now = (): number => performance.now();
/** Sources are looked over this often; E1.31 and Art-Net count their silence in seconds. */
const SWEEP_MS = 100;
/** Replies to a poll that went to everybody come within this, at random, so that not all come at once (Art-Net 4, ArtPollReply). */
const REPLY_WITHIN_MS = 1000;

/** What a hand at the front panel turns: any setting of a port, or of the whole box. */
export interface Turned {
  readonly port?: number;
  readonly wire?: number;
  readonly name?: string;
  readonly address?: string;
  readonly mask?: string;
  readonly settings?: Partial<PortSettings>;
}

/** The address is another box’s already, or none of this computer’s. */
const SURVIVED: ReadonlySet<string> = new Set(['EADDRINUSE', 'EADDRNOTAVAIL']);

export class NodeBox {
  private settings: BoxSettings;
  private outputs: OutputPort[] = [];
  private readonly memory: Memory;
  private firmware: readonly [number, number];
  private readonly wire: Wire;
  private powered = false;
  private panel: Server | undefined;
  private readonly timers: NodeJS.Timeout[] = [];
  private polled = 0;
  private readonly subscribers = new Subscribers();
  /** What its pages said last */
  private said = '';
  private readonly inputs: Inputs;
  private readonly rdm: NodeRdm | undefined;

  constructor(
    private readonly setup: BoxSetup,
    private readonly udp: Ports,
    file?: string,
    rig?: HungRig,
  ) {
    this.memory = new Memory(file);
    this.firmware = setup.firmware;
    this.settings = this.memory.load(settingsOf(setup));
    this.wire = new Wire(
      udp,
      (bytes, from, broadcast) => this.receiveArtNet(bytes, from, broadcast),
      (bytes, from) => this.receiveSacn(bytes, from),
    );
    this.inputs = new Inputs(setup, () => this.settings, this.wire);
    this.rdm = rig && new NodeRdm(setup, () => this.settings, rig, this.wire, now);
  }

  async start(): Promise<void> {
    if (!this.setup.off) await this.switchOn();
  }

  /** Cold start: settings from the memory, outputs as they are set to begin. */
  private async switchOn(settings = this.memory.load(settingsOf(this.setup))): Promise<void> {
    this.settings = settings;
    const { model } = this.setup;
    this.outputs = this.settings.ports.map((_, i) => new OutputPort(rulesOf(this.settings, model, i), model));
    this.powered = true;
    await this.begin();
    await this.joinGroups();
    this.timers.push(setInterval(() => this.lookAtPorts(), SWEEP_MS));
    this.timers.push(setInterval(() => this.inputs.announce(), Sacn.E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS));
    this.inputs.power(true);
    this.rdm?.power(true);
    this.answer(BROADCAST);
  }

  /**
   * Is found at its address. Where another box has that address already both are there, and one front panel opens; an
   * address that this computer does not have is one at which nobody finds it.
   */
  private async begin(): Promise<void> {
    try {
      await this.wire.open(this.settings.address);
      this.panel = await openPanel(this.settings.address, this.udp.panel, this.knobs());
    } catch (error) {
      if (!SURVIVED.has((error as NodeJS.ErrnoException).code ?? '')) throw error;
      this.panel = undefined;
    }
  }

  private switchOff(): void {
    this.powered = false;
    this.timers.splice(0).forEach(clearInterval);
    this.inputs.power(false);
    this.rdm?.power(false);
    this.wire.close();
    this.panel?.close();
    this.panel?.closeAllConnections();
    this.outputs = [];
  }

  private async joinGroups(): Promise<void> {
    const universes = this.settings.ports.flatMap(({ use, protocol }, i) =>
      use === 'out' && protocol === 'sacn' ? [wireOf(this.settings, this.setup.model, i)] : [],
    );
    await this.wire.join(universes.filter((universe) => universe > 0).map(multicastGroup));
  }

  private *portsOn(protocol: PortSettings['protocol'], wire: number): Generator<OutputPort> {
    for (let i = 0; i < this.outputs.length; i += 1) {
      const port = this.settings.ports[i]!;
      if (port.use === 'out' && port.protocol === protocol && wireOf(this.settings, this.setup.model, i) === wire)
        yield this.outputs[i]!;
    }
  }

  private receiveSacn(bytes: Uint8Array, address: string): void {
    // Where a socket cannot be bound to a group, whatever anything on this computer joined comes here.
    const universe = dataUniverse(bytes);
    if (universe !== undefined && this.portsOn('sacn', universe).next().done) return;
    const decoded = decodeSacn(bytes);
    if (!decoded.ok) return;
    const { value } = decoded;
    if (value.kind === 'sync') this.outputs.forEach((port) => port.sacnSync(value.syncAddress, now()));
    if (value.kind !== 'data') return;
    if (value.syncAddress !== 0) void this.wire.join([multicastGroup(value.syncAddress)]);
    const packet = { ...value, id: formatCid(value.cid), address, name: value.sourceName };
    for (const port of this.portsOn('sacn', value.universe)) port.sacn(packet, now());
  }

  private receiveArtNet(bytes: Uint8Array, from: string, broadcast: boolean): void {
    const decoded = decodeArtNet(bytes);
    if (!decoded.ok) return this.rdm?.receive(bytes, from);
    const message = decoded.value;
    if (message.kind !== 'poll') return this.obey(message, from);
    this.subscribers.note(message, from, now());
    if (broadcast) setTimeout(() => this.powered && this.answer(from, message), Math.random() * REPLY_WITHIN_MS);
    else this.answer(from, message);
  }

  private obey(message: Exclude<ArtNetMessage, ArtPoll>, from: string): void {
    const { model } = this.setup;
    switch (message.kind) {
      case 'dmx':
        for (const port of this.portsOn('artnet', message.portAddress))
          port.artnet({ ...message, address: from }, now());
        return;
      case 'sync':
        return this.outputs.forEach((port) => port.artSync(from, now()));
      case 'address':
        obeyAddress(this.settings, model, message, this.acts());
        this.settle();
        return this.answer(from);
      case 'input':
        obeyInput(this.settings, model, message);
        this.settle();
        return this.answer(from);
      case 'ipProg': {
        const before = this.settings.address;
        obeyIpProg(this.settings, model, message);
        const { address: ip, mask, gateway, dhcp } = this.settings;
        this.wire.sendArtNet(encodeIpProgReply({ ip, mask, gateway, dhcp, port: ArtNet.ARTNET_PORT }), from);
        this.settle();
        // The answer leaves from the old address before the box is found at its new one.
        if (ip !== before) setTimeout(() => void this.move(), 20);
        return;
      }
      case 'pollReply':
      case 'ipProgReply':
        return;
    }
  }

  private acts(): Acts {
    return {
      cancelMerge: () => this.outputs.forEach((port) => port.cancelMerge()),
      clear: (port) => this.outputs[port]?.clear(),
      look: (port) => [...(this.outputs[port]?.output(now()) ?? [])],
    };
  }

  /** What was set takes effect, and is kept. */
  private settle(): void {
    this.memory.keep(this.settings);
    this.settings.ports.forEach((_, i) => this.outputs[i]?.configure(rulesOf(this.settings, this.setup.model, i)));
    void this.joinGroups();
  }

  private async move(): Promise<void> {
    if (!this.powered) return;
    this.wire.close();
    this.panel?.close();
    this.panel?.closeAllConnections();
    await this.begin();
    this.answer(BROADCAST);
  }

  private traffic(i: number) {
    const output = this.outputs[i];
    const { use, disabled } = this.settings.ports[i]!;
    if (use === 'in') return { active: this.inputs.at(i) !== undefined && !disabled, merging: false };
    const fed = output !== undefined && use === 'out' && output.passes(now());
    return { active: fed || use === 'fixed', merging: fed && output.merging };
  }

  /** Lets silent sources go, and tells whoever asked to be told of what changed. */
  private lookAtPorts(): void {
    this.outputs.forEach((port) => port.state(now()));
    if (this.subscribers.addresses(now()).length === 0) return;
    const { shortName, mask, ports, pages } = this.settings;
    const traffic = ports
      .map((_, i) => this.traffic(i))
      .map(({ active, merging }) => Number(active) + 2 * Number(merging));
    const set = ports.map(({ use, disabled, protocol, low, merge }) => [use, disabled, protocol, low, merge]);
    const says = [shortName, mask, traffic, set, pages.map(({ net, sub }) => [net, sub])].join();
    if (says === this.said) return;
    this.said = says;
    for (const address of this.subscribers.addresses(now())) this.answer(address);
  }

  /** Every page, or those that a targeted poll means. */
  private answer(to: string, poll?: ArtPoll): void {
    this.polled += 1;
    const traffic = this.settings.ports.map((_, i) => this.traffic(i));
    for (const page of replyPages({ ...this.setup, firmware: this.firmware }, this.settings, traffic, this.polled))
      if (!poll || pollMeans(poll, page)) this.wire.sendArtNet(encodePollReply(page), to);
  }

  /** What leaves a port now, from 1; undefined without power or signal. */
  output(port: number): Uint8Array | undefined {
    return this.outputs[port - 1]?.output(now()) ?? undefined;
  }

  /** What leaves each port now, and whose it is. */
  leaving(): readonly Leaving[] {
    return this.settings.ports.map((_, i) => leavingOf(this.outputs[i], now()));
  }

  /** What a DMX desk plugged into an input (from 0) puts out; null pulls its plug. */
  feed(port: number, levels: Uint8Array | null): void {
    this.inputs.feed(port, levels);
  }

  /** A hand turns something at the front panel. Throws a sentence for what the model cannot do. */
  turn({ port, wire, name, address, mask, settings }: Turned): void {
    const place = (port ?? 0) - 1;
    const there = port === undefined ? undefined : this.settings.ports[place];
    if (port !== undefined && !there) throw new Error(`${this.settings.shortName} has no port ${port}.`);
    if (there && settings) {
      const { use, protocol, merge, loss, start, fixed, rdm } = { ...there, ...settings };
      const asked = { ...PLAIN_PORT, number: port!, universe: 1, use, protocol, merge, loss, start, fixed, rdm };
      const why = whyNot(this.setup.model, asked)[0];
      if (why !== undefined) throw new Error(why);
      this.settings.ports[place] = { ...there, ...settings };
    }
    if (there && wire !== undefined) turnTo(this.settings, this.setup.model, place, wire);
    if (name !== undefined) this.settings.shortName = name;
    if (mask !== undefined) this.settings.mask = mask;
    if (address !== undefined) this.settings.address = address;
    this.settle();
    if (address !== undefined) void this.move();
  }

  async power(on: boolean): Promise<void> {
    if (on === this.powered) return;
    if (on) await this.switchOn();
    else this.switchOff();
  }

  deafen(change: Partial<Cable['deaf']>): void {
    this.wire.cable.deaf = { ...this.wire.cable.deaf, ...change };
  }

  /** Says from now on that it runs this firmware. */
  run(firmware: readonly [number, number]): void {
    this.firmware = firmware;
    this.answer(BROADCAST);
  }

  /** As it was shipped: settings, cable, power. */
  async reset(): Promise<void> {
    Object.assign(this.wire.cable, sound());
    this.firmware = this.setup.firmware;
    const shipped = settingsOf(this.setup);
    if (this.powered && JSON.stringify(shipped) === JSON.stringify(this.settings)) return this.answer(BROADCAST);
    this.memory.keep(shipped);
    this.switchOff();
    if (this.setup.off) return;
    await this.switchOn(shipped);
  }

  trouble(change: Partial<Wire['cable']>): void {
    Object.assign(this.wire.cable, change);
  }

  private portNow(i: number): StandInPort {
    const { use, protocol, merge } = this.settings.ports[i]!;
    const output = this.outputs[i];
    const levels = use === 'in' ? this.inputs.at(i) : output?.output(now());
    const state = !this.powered ? 'no power' : use === 'out' ? (output?.state(now()) ?? 'no power') : use;
    return {
      number: i + 1,
      use,
      protocol,
      wire: wireOf(this.settings, this.setup.model, i),
      merge,
      state,
      peak: levels ? Math.max(...levels) : 0,
      lit: levels ? levels.reduce((count, level) => count + Number(level > 0), 0) : 0,
      sources: output?.sources.map(({ name, address }) => name || address) ?? [],
    };
  }

  report(): StandIn {
    const { shortName, address, mask, indicators } = this.settings;
    const { plugged, loses, delays } = this.wire.cable;
    return {
      id: this.setup.id,
      name: shortName,
      kind: 'node',
      model: `${this.setup.model.maker} ${this.setup.model.name}`,
      address,
      mask,
      powered: this.powered,
      plugged,
      loses,
      delays,
      locating: indicators === 'locate',
      cue: '',
      cues: [],
      master: 100,
      faders: [],
      ports: this.settings.ports.map((_, i) => this.portNow(i)),
    };
  }

  private knobs(): Record<string, PanelAct> {
    return {
      ports: () =>
        this.settings.ports.map((port, i) => ({
          ...this.portNow(i),
          loss: port.loss,
          start: port.start,
          output: [...(this.outputs[i]?.output(now()) ?? [])],
          sources: this.outputs[i]?.sources.map(({ protocol, id, address, name, priority }) => ({
            protocol,
            id,
            address,
            name,
            priority,
          })),
        })),
      settings: () => this.settings,
      frames: () => this.rdm?.takeIntervals() ?? [],
      turn: (given) => this.turn(given as Turned),
    };
  }
}
