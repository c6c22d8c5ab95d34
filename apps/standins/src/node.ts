/**
 * A node: answers polls, receives its ports' universes by both protocols, merges at most two
 * sources a port, and knows what leaves each port.
 */
import { SLOTS, multicastGroup, splitPortAddress } from '@taxiarch/core/address';
import {
  ArtNet,
  PORTS_PER_PAGE,
  blankPollReply,
  decodeArtNet,
  encodePollReply,
  type PollReplyPort,
} from '@taxiarch/core/artnet';
import { NOBODY, mergeSlots, type Contender, type MergeMode } from '@taxiarch/core/merge';
import { Sacn, decodeSacn, formatCid } from '@taxiarch/core/sacn';
import { sequenceStep } from '@taxiarch/core/stream';
import { BROADCAST, join, open, type Ports } from './network';
import { openPanel } from './panel';

export interface NodePort {
  /** Art-Net Port-Address and sACN universe that this port puts out; whichever comes is taken. */
  readonly portAddress: number;
  readonly sacnUniverse: number;
}

export interface NodeSetup {
  readonly shortName: string;
  readonly longName: string;
  readonly address: string;
  readonly mac: readonly number[];
  readonly ports: readonly NodePort[];
}

const MOST_SOURCES = 2;

interface PortSource extends Contender {
  readonly protocol: 'sacn' | 'artnet';
  readonly id: string;
  readonly address: string;
  name: string;
  priority: number;
  count: number;
  slotPriority: Uint8Array | null;
  lastSeen: number;
  sequence: number;
}

class OutputPort {
  readonly sources: PortSource[] = [];
  readonly output = new Uint8Array(SLOTS);
  private readonly owners = new Uint8Array(SLOTS).fill(NOBODY);
  merge: MergeMode = 'htp';

  constructor(readonly setup: NodePort) {}

  /** The source of an id; undefined if the port merges as many as it can already. */
  source(protocol: PortSource['protocol'], id: string, address: string, now: number): PortSource | undefined {
    this.forgetSilent(now);
    const known = this.sources.find((source) => source.id === id);
    if (known) return known;
    if (this.sources.length >= MOST_SOURCES) return undefined;
    const mark = this.sources.some((source) => source.mark === 0) ? 1 : 0;
    const made: PortSource = {
      protocol,
      id,
      address,
      mark,
      name: '',
      priority: Sacn.DEFAULT_PRIORITY,
      values: new Uint8Array(SLOTS),
      count: 0,
      slotPriority: null,
      changedAt: null,
      lastSeen: now,
      sequence: -1,
    };
    this.sources.push(made);
    return made;
  }

  drop(source: PortSource): void {
    this.sources.splice(this.sources.indexOf(source), 1);
    this.remerge();
  }

  forgetSilent(now: number): void {
    for (const source of [...this.sources]) {
      const timeout = source.protocol === 'sacn' ? Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS : ArtNet.MERGE_TIMEOUT_MS;
      if (now - source.lastSeen > timeout) this.drop(source);
    }
  }

  /** With no source left the port holds its last look. */
  remerge(): void {
    if (this.sources.length > 0) mergeSlots(this.sources, this.merge, this.output, this.owners);
  }

  asReplied(): PollReplyPort {
    const merging = this.sources.length > 1 ? ArtNet.OUTPUT_MERGING : 0;
    const fromSacn = this.sources.some((source) => source.protocol === 'sacn') ? ArtNet.OUTPUT_FROM_SACN : 0;
    const sending = this.sources.length > 0 ? ArtNet.OUTPUT_SENDING : 0;
    const ltp = this.merge === 'ltp' ? ArtNet.OUTPUT_MERGE_LTP : 0;
    return {
      type: ArtNet.PORT_CAN_OUTPUT,
      goodInput: 0,
      goodOutputA: sending | merging | ltp | fromSacn,
      goodOutputB: ArtNet.OUTPUT_RDM_DISABLED,
      swIn: 0,
      swOut: splitPortAddress(this.setup.portAddress).universe,
    };
  }
}

export async function startNode(setup: NodeSetup, udp: Ports): Promise<void> {
  const ports = setup.ports.map((port) => new OutputPort(port));
  const now = () => performance.now();

  function takeLevels(port: OutputPort, source: PortSource, slots: Uint8Array): void {
    source.values.fill(0);
    source.values.set(slots);
    source.count = slots.length;
    port.remerge();
  }

  function receiveSacn(bytes: Uint8Array, address: string): void {
    const decoded = decodeSacn(bytes);
    if (!decoded.ok || decoded.message.kind !== 'data' || decoded.message.preview) return;
    const data = decoded.message;
    for (const port of ports) {
      if (port.setup.sacnUniverse !== data.universe) continue;
      const source = port.source('sacn', formatCid(data.cid), address, now());
      if (!source) continue;
      const step = sequenceStep('sacn', source.sequence, data.sequence);
      if (source.sequence >= 0 && step <= 0 && step > -20) continue;
      source.sequence = data.sequence;
      source.lastSeen = now();
      source.name = data.sourceName;
      source.priority = data.priority;
      if (data.terminated) port.drop(source);
      else if (data.startCode === Sacn.START_CODE_SLOT_PRIORITY) {
        const priorities = new Uint8Array(SLOTS);
        priorities.set(data.slots);
        source.slotPriority = priorities;
        port.remerge();
      } else if (data.startCode === Sacn.START_CODE_NULL) takeLevels(port, source, data.slots);
    }
  }

  function receiveArtNet(bytes: Uint8Array, address: string): void {
    const decoded = decodeArtNet(bytes);
    if (!decoded.ok) return;
    const { message } = decoded;
    if (message.kind === 'poll') return answer(address);
    if (message.kind !== 'dmx') return;
    for (const port of ports) {
      if (port.setup.portAddress !== message.portAddress) continue;
      const source = port.source('artnet', address, address, now());
      if (!source) continue;
      source.lastSeen = now();
      takeLevels(port, source, message.slots);
    }
  }

  const own = await open(setup.address, udp.artnet, receiveArtNet);
  await open(BROADCAST, udp.artnet, receiveArtNet);
  await open(setup.address, udp.sacn, receiveSacn);
  const groups = setup.ports.map((port) => multicastGroup(port.sacnUniverse));
  await join(await open('0.0.0.0', udp.sacn, receiveSacn), groups);

  /** One page for every four ports. */
  function answer(to: string): void {
    for (let first = 0; first < ports.length; first += PORTS_PER_PAGE) {
      const there = ports.slice(first, first + PORTS_PER_PAGE);
      const { net, sub } = splitPortAddress(there[0]!.setup.portAddress);
      const page = encodePollReply({
        ...blankPollReply(setup.address, Uint8Array.from(setup.mac)),
        portName: setup.shortName,
        longName: setup.longName,
        nodeReport: '#0001 [0000] All is well',
        netSwitch: net,
        subSwitch: sub,
        portCount: there.length,
        ports: there.map((port) => port.asReplied()),
        bindIndex: first / PORTS_PER_PAGE + 1,
      });
      own.send(page, udp.artnet, to);
    }
  }

  setInterval(() => ports.forEach((port) => port.forgetSilent(now())), 250);

  await openPanel(setup.address, udp.panel, {
    ports: () =>
      ports.map((port, i) => ({
        number: i + 1,
        ...port.setup,
        merge: port.merge,
        output: [...port.output],
        sources: port.sources.map(({ protocol, id, address, name, priority }) => ({
          protocol,
          id,
          address,
          name,
          priority,
        })),
      })),
    merge: ({ port, mode }) => {
      const chosen = ports[Number(port) - 1];
      if (!chosen || (mode !== 'htp' && mode !== 'ltp'))
        throw new Error('Turn “port” to one of this node’s, and “mode” to htp or ltp.');
      chosen.merge = mode;
      chosen.remerge();
    },
  });
}
