/**
 * A node: answers polls, takes its ports' universes, merges as its model can, sends what comes in at
 * its inputs, and is set by Address, Input, IpProg or at its front panel.
 */
import type { Server } from 'node:http';
import { multicastGroup, SLOTS } from '@taxiarch/core/address';
import { ArtNet, type ArtNetMessage, decodeArtNet, encodeDmx, encodeIpProgReply } from '@taxiarch/core/artnet';
import type { StandIn, StandInPort } from '@taxiarch/core/contract';
import { whyNot } from '@taxiarch/core/machine';
import { decodeSacn, encodeData, formatCid, Sacn } from '@taxiarch/core/sacn';
import { PLAIN_PORT } from '@taxiarch/core/records';
import { sequenceStep } from '@taxiarch/core/stream';
import { BROADCAST, type Ports } from './network';
import { OutputPort } from './outputPort';
import { openPanel, type PanelAct } from './panel';
import { obeyAddress, obeyInput, obeyIpProg, type Acts } from './programming';
import { replyPages } from './replies';
import { Memory, settingsOf, turnTo, wireOf, type BoxSettings, type BoxSetup, type PortSettings } from './settings';
import { Wire } from './wire';

const now = (): number => performance.now();
const INPUT_RATE = 40;
/** Sources are looked over this often; E1.31 and Art-Net count their silence in seconds. */
const SWEEP_MS = 100;

/** What a hand at the front panel turns: any setting of a port, or of the whole box. */
export interface Turned {
  readonly port?: number;
  readonly wire?: number;
  readonly name?: string;
  readonly address?: string;
  readonly mask?: string;
  readonly settings?: Partial<PortSettings>;
}

export class NodeBox {
  private settings: BoxSettings;
  private outputs: OutputPort[] = [];
  private readonly memory: Memory;
  private readonly wire: Wire;
  private powered = false;
  private panel: Server | undefined;
  private readonly timers: NodeJS.Timeout[] = [];
  private inputTimer: NodeJS.Timeout | undefined;
  private polled = 0;
  private sequence = 0;
  /** What a desk feeds into each input */
  private readonly inputs = new Map<number, Uint8Array>();

  constructor(
    private readonly setup: BoxSetup,
    private readonly udp: Ports,
    file?: string,
  ) {
    this.memory = new Memory(file);
    this.settings = this.memory.load(settingsOf(setup));
    this.wire = new Wire(
      udp,
      (bytes, from) => this.receiveArtNet(bytes, from),
      (bytes, from) => this.receiveSacn(bytes, from),
    );
  }

  async start(): Promise<void> {
    if (!this.setup.off) await this.switchOn();
  }

  /** Cold start: settings from the memory, outputs as they are set to begin. */
  private async switchOn(): Promise<void> {
    this.settings = this.memory.load(settingsOf(this.setup));
    this.outputs = this.settings.ports.map((port) => new OutputPort(port, this.setup.model.sources));
    this.powered = true;
    await this.wire.open(this.settings.address);
    await this.joinGroups();
    this.timers.push(setInterval(() => this.outputs.forEach((port) => port.forgetSilent(now())), SWEEP_MS));
    this.beginInputs();
    this.panel = await openPanel(this.settings.address, this.udp.panel, this.knobs());
    this.answer(BROADCAST);
  }

  private switchOff(): void {
    this.powered = false;
    this.timers.splice(0).forEach(clearInterval);
    clearInterval(this.inputTimer);
    this.inputTimer = undefined;
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
    const decoded = decodeSacn(bytes);
    if (!decoded.ok || decoded.value.kind !== 'data' || decoded.value.preview) return;
    const data = decoded.value;
    for (const port of this.portsOn('sacn', data.universe)) {
      const source = port.source('sacn', formatCid(data.cid), address, now());
      if (!source) continue;
      const step = sequenceStep('sacn', source.sequence, data.sequence);
      if (source.sequence >= 0 && step <= 0 && step > -20) continue;
      source.sequence = data.sequence;
      source.lastSeen = now();
      source.name = data.sourceName;
      source.priority = data.priority;
      if (data.terminated) port.drop(source, now());
      else if (data.startCode === Sacn.START_CODE_SLOT_PRIORITY) {
        const priorities = new Uint8Array(SLOTS);
        priorities.set(data.slots);
        source.slotPriority = priorities;
        port.remerge();
      } else if (data.startCode === Sacn.START_CODE_NULL) port.setLevels(source, data.slots, now());
    }
  }

  private receiveArtNet(bytes: Uint8Array, from: string): void {
    const decoded = decodeArtNet(bytes);
    if (decoded.ok) this.obey(decoded.value, from);
  }

  private obey(message: ArtNetMessage, from: string): void {
    const { model } = this.setup;
    switch (message.kind) {
      case 'poll':
        return this.answer(from);
      case 'dmx':
        for (const port of this.portsOn('artnet', message.portAddress)) {
          const source = port.source('artnet', from, from, now());
          if (source) port.setLevels(source, message.slots, now());
        }
        return;
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
      case 'sync':
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
    this.settings.ports.forEach((port, i) => this.outputs[i]?.configure({ ...port }));
    void this.joinGroups();
  }

  private async move(): Promise<void> {
    if (!this.powered) return;
    this.wire.close();
    this.panel?.close();
    this.panel?.closeAllConnections();
    await this.wire.open(this.settings.address);
    this.panel = await openPanel(this.settings.address, this.udp.panel, this.knobs());
    this.answer(BROADCAST);
  }

  private traffic(i: number) {
    const output = this.outputs[i];
    const { use } = this.settings.ports[i]!;
    if (use === 'in') return { active: this.inputs.has(i), merging: false };
    const fed = output !== undefined && use === 'out' && output.state(now()) === 'fed';
    return { active: fed || use === 'fixed', merging: fed && output.sources.length > 1 };
  }

  private answer(to: string): void {
    this.polled += 1;
    const traffic = this.settings.ports.map((_, i) => this.traffic(i));
    for (const page of replyPages(this.setup, this.settings, traffic, this.polled)) this.wire.sendArtNet(page, to);
  }

  /** What a DMX desk plugged into an input (from 0) puts out; null pulls its plug. */
  feed(port: number, levels: Uint8Array | null): void {
    if (levels) this.inputs.set(port, levels);
    else this.inputs.delete(port);
    this.beginInputs();
  }

  /** The clock of the inputs, which runs only while something is plugged into one. */
  private beginInputs(): void {
    if (!this.powered || this.inputTimer || this.inputs.size === 0) return;
    this.inputTimer = setInterval(() => this.sendInputs(), 1000 / INPUT_RATE);
  }

  private sendInputs(): void {
    this.sequence = (this.sequence + 1) & 0xff;
    for (const [i, slots] of this.inputs) {
      const port = this.settings.ports[i];
      if (port?.use !== 'in') continue;
      const wire = wireOf(this.settings, this.setup.model, i);
      if (port.protocol === 'artnet')
        this.wire.sendArtNet(
          encodeDmx({ sequence: Math.max(1, this.sequence), physical: i, portAddress: wire, slots }),
          BROADCAST,
        );
      else
        this.wire.sendSacn(
          encodeData({
            cid: Uint8Array.from([0x7f, 0xf0, ...this.setup.mac, 0, 0, 0, 0, 0, 0, 0, i]),
            sourceName: this.settings.shortName,
            priority: this.settings.priority,
            syncAddress: 0,
            sequence: this.sequence,
            preview: false,
            terminated: false,
            forceSync: false,
            universe: wire,
            startCode: Sacn.START_CODE_NULL,
            slots,
          }),
          wire,
        );
    }
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

  trouble(change: Partial<Wire['cable']>): void {
    Object.assign(this.wire.cable, change);
  }

  private portNow(i: number): StandInPort {
    const { use, protocol, merge } = this.settings.ports[i]!;
    const output = this.outputs[i];
    const levels = use === 'in' ? this.inputs.get(i) : output?.output(now());
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
      turn: (given) => this.turn(given as Turned),
    };
  }
}
