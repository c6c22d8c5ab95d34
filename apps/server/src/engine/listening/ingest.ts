/** Packets in: from bytes on a socket to a stream's account and levels. Allocates nothing for a known stream. */
import { fromWireKey, wireKey } from '@taxiarch/core/base/address';
import {
  ArtNet,
  blankDmxFields,
  decodeIpProgReply,
  decodeNzs,
  decodePoll,
  decodePollReply,
  otherKindOf,
  readDmxFields,
  readOpCode,
  readOther,
  type ArtIpProgReply,
  type ArtPoll,
  type ArtPollReply,
  type OtherKind,
} from '@taxiarch/core/protocol/artnet';
import { printable, readU32 } from '@taxiarch/core/base/bytes';
import {
  Sacn,
  blankDataFields,
  decodeSacn,
  readDataFields,
  readRoot,
  readSourceName,
  type SacnDiscovery,
} from '@taxiarch/core/protocol/sacn';
import { artnetSync, sacnSync } from '@taxiarch/core/signal/stream';
import type { SentBy, Stream } from './stream';
import { Syncs } from './syncs';
import type { LiveUniverse } from './universe';
import { MOST_ROUTES } from '@taxiarch/core/whole/contract/feed';
import type { ToEngine } from '../../bridge/engineMessages';
import { MOST_UNIVERSES, SharedLevels } from '../../bridge/shared';

const DMX_HEADER = 18;
/** What others say to nodes: understood, and none of our business. */
const QUIET_OPCODES: ReadonlySet<number> = new Set([ArtNet.OpAddress, ArtNet.OpInput, ArtNet.OpIpProg]);
/** From lamps, through their nodes; and what others ask of those */
const LAMP_OPCODES: ReadonlySet<number> = new Set([
  ArtNet.OpTodRequest,
  ArtNet.OpTodData,
  ArtNet.OpTodControl,
  ArtNet.OpRdm,
  ArtNet.OpRdmSub,
]);
/** Packets of one frame that came by another socket than their ArtSync may be handed on after it, but by no more than this. */
const OVERTAKEN_MS = 5;

/** This program's own component ids: for slots that people took, and for routes. */
export interface OwnCids {
  readonly taken: Uint8Array;
  readonly routes: Uint8Array;
}

/** Where a stream comes from that comes by no network. */
const PLUG = 'plug';

export type PluggedFrame = Omit<Extract<ToEngine, { type: 'plugged' }>, 'type'>;

export interface IngestListener {
  /** New levels stand in a universe. */
  onLevels(key: number, now: number): void;
  /** Streams wait for synchronisation packets on a universe. */
  onSyncAddress(universe: number): void;
  /** A universe was given a row in the shared memory. */
  onUniverse(universe: LiveUniverse): void;
  onDiscovered(page: SacnDiscovery, address: string, now: number): void;
  onPoll(poll: ArtPoll, address: string): void;
  onPollReply(reply: ArtPollReply, address: string, now: number): void;
  onIpProgReply(reply: ArtIpProgReply, address: string): void;
  /** Time, diagnostics, a trigger, a command */
  onOther(kind: OtherKind, address: string, says: string): void;
  /** About lamps; gives the name of the rule that it breaks, if it cannot be read */
  onLamps(bytes: Uint8Array, address: string): string | undefined;
}

export class Ingest {
  readonly universes: LiveUniverse[] = [];
  readonly rejected: Record<string, number> = {};
  readonly syncs = new Syncs(() => this.reject('too-many-syncs'));
  packets = 0;
  private readonly byKey = new Map<number, LiveUniverse>();
  private readonly sacnData = blankDataFields();
  private readonly dmx = blankDmxFields();

  constructor(
    private readonly shared: SharedLevels,
    private readonly newUniverse: (key: number, row: number, shared: SharedLevels) => LiveUniverse,
    private readonly own: OwnCids,
    private readonly listener: IngestListener,
  ) {}

  /** The universe of a key, made if there is room for it. */
  universe(key: number): LiveUniverse | undefined {
    const known = this.byKey.get(key);
    if (known) return known;
    if (this.universes.length >= MOST_UNIVERSES - MOST_ROUTES) return undefined;
    const made = this.newUniverse(key, this.universes.length, this.shared);
    this.universes.push(made);
    this.byKey.set(key, made);
    this.listener.onUniverse(made);
    return made;
  }

  /** The universe of a key, if anything was heard or planned of it. */
  known(key: number): LiveUniverse | undefined {
    return this.byKey.get(key);
  }

  /** Counts a packet that is not read, by reason. */
  reject(reason: string): void {
    this.rejected[reason] = (this.rejected[reason] ?? 0) + 1;
  }

  /** `via` tells by which socket it came: a sender may send by multicast and unicast alike. */
  sacn(bytes: Uint8Array, address: string, port: number, now: number, via = 0): void {
    const vector = readRoot(bytes);
    if (typeof vector === 'string') return this.reject(vector);
    if (vector !== Sacn.VECTOR_ROOT_E131_DATA) return this.sacnExtended(bytes, address, now);
    const data = this.sacnData;
    const reason = readDataFields(bytes, data);
    if (reason) return this.reject(reason);
    const universe = this.universe(data.universe);
    if (!universe) return this.reject('too-many-universes');
    const stream = this.sacnStream(universe, bytes, { address, port, via }, data.sequence, now);
    if (!stream) return this.reject('too-many-senders');
    this.packets += 1;
    const levels = data.startCode === Sacn.START_CODE_NULL;
    // A source may send by IPv4 and IPv6 alike: the copy is no packet of its own.
    if (stream.address !== address && stream.isCopy(address, data.sequence)) return;
    if (stream.isSecond(address, via, data.sequence)) return;
    stream.via = via;
    // All start codes of a source share the numbering of its universe (6.7.2).
    if (!stream.account.note(now, data.sequence, levels)) return;
    if (stream.nameDue(now)) stream.name = printable(readSourceName(bytes));
    if (data.options & Sacn.OPTION_STREAM_TERMINATED) {
      stream.account.terminate(now);
      universe.dirty = true;
      return;
    }
    const from = Sacn.DATA_HEADER_LENGTH;
    if (!levels && data.startCode !== Sacn.START_CODE_SLOT_PRIORITY)
      return stream.noteStartCode(data.startCode, bytes.subarray(from, from + data.slotCount), now);
    stream.priority = data.priority;
    stream.syncAddress = data.syncAddress;
    stream.account.preview = (data.options & Sacn.OPTION_PREVIEW_DATA) !== 0;
    stream.forceSync = (data.options & Sacn.OPTION_FORCE_SYNCHRONIZATION) !== 0;
    if (levels) {
      if (this.sacnHeld(stream, now)) return stream.hold(bytes, from, data.slotCount, now);
      stream.setLevels(bytes, from, data.slotCount, now);
    } else stream.setSlotPriority(bytes, from, data.slotCount, now);
    universe.dirty = true;
    if (levels) this.listener.onLevels(universe.key, now);
  }

  /** Universes on which streams are synchronised, told once each */
  private readonly syncAddresses = new Set<number>();

  private sacnHeld({ syncAddress, forceSync }: Stream, now: number): boolean {
    if (syncAddress === 0) return false;
    if (!this.syncAddresses.has(syncAddress)) {
      this.syncAddresses.add(syncAddress);
      this.listener.onSyncAddress(syncAddress);
    }
    return sacnSync(syncAddress, forceSync, this.syncs.lastSacn(syncAddress), now) === 'hold';
  }

  private release(which: (stream: Stream) => boolean, now: number): void {
    for (const universe of this.universes) if (universe.release(which, now)) this.listener.onLevels(universe.key, now);
  }

  /** A source is known by its CID (E1.31-2018, 5.6); two that use the same one are told apart by where they send from. */
  private sacnStream(
    universe: LiveUniverse,
    bytes: Uint8Array,
    { address, port, via }: { readonly address: string; readonly port: number; readonly via: number },
    sequence: number,
    now: number,
  ): Stream | undefined {
    let same: Stream | undefined;
    for (const stream of universe.streams) {
      if (!sameCid(stream.origin.cid, bytes, 22)) continue;
      if (stream.address === address && stream.port === port) return stream;
      same ??= stream;
    }
    if (same?.isOtherFamily(address) || same?.isSecond(address, via, sequence)) return same;
    if (same?.comesFrom(address, port, same.account.stepTo(sequence), now)) return same;
    const cid = Uint8Array.prototype.slice.call(bytes, 22, 22 + Sacn.CID_LENGTH);
    const sent = sameCid(this.own.taken, bytes, 22)
      ? 'taken'
      : sameCid(this.own.routes, bytes, 22)
        ? 'route'
        : 'others';
    const made = universe.add({ protocol: 'sacn', address, cid, sent, physical: 0 }, now);
    if (!made) return undefined;
    made.port = port;
    return made;
  }

  private sacnExtended(bytes: Uint8Array, address: string, now: number): void {
    const decoded = decodeSacn(bytes);
    if (!decoded.ok) return this.reject(decoded.reason);
    this.packets += 1;
    const { value } = decoded;
    if (value.kind === 'sync' && this.syncs.sacn(value, address, now))
      this.release((stream) => stream.origin.protocol === 'sacn' && stream.syncAddress === value.syncAddress, now);
    if (value.kind === 'discovery') this.listener.onDiscovered(value, address, now);
  }

  /** `sent` says whether the packet came from one of this program's own sending sockets; `via` by which socket it came. */
  artnet(bytes: Uint8Array, address: string, sent: SentBy, via: number, now: number): void {
    const opCode = readOpCode(bytes);
    if (opCode === ArtNet.OpDmx) return this.artDmx(bytes, address, sent, via, now);
    if (typeof opCode === 'string') return this.reject(opCode);
    const other = otherKindOf(opCode);
    if (other) {
      const read = readOther(other, bytes);
      if (!read.ok) return this.reject(read.reason);
      this.packets += 1;
      this.listener.onOther(other, address, read.value);
    } else if (opCode === ArtNet.OpPollReply) {
      const decoded = decodePollReply(bytes);
      if (!decoded.ok) return this.reject(decoded.reason);
      this.packets += 1;
      this.listener.onPollReply(decoded.value, address, now);
    } else if (opCode === ArtNet.OpPoll) {
      const decoded = decodePoll(bytes);
      if (!decoded.ok) return this.reject(decoded.reason);
      this.packets += 1;
      this.listener.onPoll(decoded.value, address);
    } else if (opCode === ArtNet.OpIpProgReply) {
      const decoded = decodeIpProgReply(bytes);
      if (!decoded.ok) return this.reject(decoded.reason);
      this.packets += 1;
      this.listener.onIpProgReply(decoded.value, address);
    } else if (opCode === ArtNet.OpSync) {
      this.packets += 1;
      this.syncs.artnet(address, via, now);
      this.release((stream) => stream.origin.protocol === 'artnet' && stream.address === address, now);
    } else if (opCode === ArtNet.OpNzs) this.artNzs(bytes, address, sent, now);
    else if (QUIET_OPCODES.has(opCode)) this.packets += 1;
    else if (LAMP_OPCODES.has(opCode)) this.lamps(bytes, address);
    else this.reject('unknown-opcode');
  }

  private lamps(bytes: Uint8Array, address: string): void {
    const broken = this.listener.onLamps(bytes, address);
    if (broken === undefined) this.packets += 1;
    else this.reject(broken);
  }

  /** The stream of a sender’s physical input: two inputs of one sender are two sources (Art-Net 4, "Data merging"). */
  private artStream(
    portAddress: number,
    address: string,
    sent: SentBy,
    physical: number | undefined,
    now: number,
  ): Stream | 'too-many-universes' | 'too-many-senders' {
    const universe = this.universe(wireKey({ protocol: 'artnet', number: portAddress }));
    if (!universe) return 'too-many-universes';
    for (const stream of universe.streams) {
      const { origin } = stream;
      if (origin.sent === sent && stream.address === address && (physical ?? origin.physical) === origin.physical)
        return stream;
    }
    const origin = { protocol: 'artnet', address, cid: new Uint8Array(0), sent, physical: physical ?? 0 } as const;
    return universe.add(origin, now) ?? 'too-many-senders';
  }

  /** Slots that came by a plug of this computer: a stream like any other, whatever its universe travels by. */
  plugged({ key, id, name, priority, slots }: PluggedFrame, now: number): void {
    const universe = this.universe(key);
    if (!universe) return this.reject('too-many-universes');
    const address = PLUG;
    const { protocol } = fromWireKey(key);
    let stream = universe.streams.find((one) => one.address === address && one.plugId === id);
    if (!stream) {
      stream = universe.add({ protocol, address, cid: new Uint8Array(0), sent: 'others', physical: 0 }, now);
      if (!stream) return this.reject('too-many-senders');
      stream.plugId = id;
    }
    this.packets += 1;
    stream.name = name;
    stream.priority = priority;
    // Frames on a line are not numbered: each is the next. Art-Net has a word for that (0), sACN counts round.
    stream.plugCount = protocol === 'sacn' ? (stream.plugCount + 1) & 0xff : 0;
    if (!stream.account.note(now, stream.plugCount, true)) return;
    stream.setLevels(slots, 0, slots.length, now);
    universe.dirty = true;
    this.listener.onLevels(key, now);
  }

  private artNzs(bytes: Uint8Array, address: string, sent: SentBy, now: number): void {
    const decoded = decodeNzs(bytes);
    if (!decoded.ok) return this.reject(decoded.reason);
    const { startCode, portAddress, slots } = decoded.value;
    const stream = this.artStream(portAddress, address, sent, undefined, now);
    if (typeof stream === 'string') return this.reject(stream);
    this.packets += 1;
    stream.account.seen(now);
    stream.noteStartCode(startCode, slots, now);
  }

  private artDmx(bytes: Uint8Array, address: string, sent: SentBy, via: number, now: number): void {
    const { dmx } = this;
    const reason = readDmxFields(bytes, dmx);
    if (reason) return this.reject(reason);
    const stream = this.artStream(dmx.portAddress, address, sent, dmx.physical, now);
    if (typeof stream === 'string') return this.reject(stream);
    const universe = this.known(wireKey({ protocol: 'artnet', number: dmx.portAddress }))!;
    this.packets += 1;
    if (!stream.account.note(now, dmx.sequence, true)) return;
    stream.levelsAt = now;
    const synced = this.syncs.lastArtNet(address);
    if (synced !== undefined && artnetSync(universe.heard(now), synced.at, now) === 'hold') {
      // Sent before its ArtSync, and handed on after it: it came by another socket.
      const overtaken = via !== synced.via && now - synced.at < OVERTAKEN_MS && stream.releasedAt < synced.at;
      if (!overtaken) return stream.hold(bytes, DMX_HEADER, dmx.slotCount, now);
      stream.releasedAt = synced.at;
    }
    stream.setLevels(bytes, DMX_HEADER, dmx.slotCount, now);
    universe.dirty = true;
    this.listener.onLevels(universe.key, now);
  }
}

function sameCid(cid: Uint8Array, bytes: Uint8Array, at: number): boolean {
  return (
    cid.length === Sacn.CID_LENGTH &&
    readU32(cid, 0) === readU32(bytes, at) &&
    readU32(cid, 4) === readU32(bytes, at + 4) &&
    readU32(cid, 8) === readU32(bytes, at + 8) &&
    readU32(cid, 12) === readU32(bytes, at + 12)
  );
}
