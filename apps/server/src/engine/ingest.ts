/** Packets in: from bytes on a socket to a stream's account and levels. Allocates nothing for a known stream. */
import { wireKey } from '@taxiarch/core/address';
import {
  ArtNet,
  blankDmxFields,
  decodeIpProgReply,
  decodePoll,
  decodePollReply,
  readDmxFields,
  readOpCode,
  type ArtIpProgReply,
  type ArtPoll,
  type ArtPollReply,
} from '@taxiarch/core/artnet';
import { readU32 } from '@taxiarch/core/bytes';
import {
  Sacn,
  blankDataFields,
  decodeSacn,
  readDataFields,
  readRoot,
  readSourceName,
  type SacnDiscovery,
} from '@taxiarch/core/sacn';
import { artnetSync, sacnSync } from '@taxiarch/core/stream';
import type { SentBy, Stream } from './stream';
import type { LiveUniverse } from './universe';
import { MOST_ROUTES } from '@taxiarch/core/contract/feed';
import { MOST_UNIVERSES, SharedLevels } from '../bridge/shared';

const DMX_HEADER = 18;
/** What others say to nodes: understood, and none of our business. */
const QUIET_OPCODES: ReadonlySet<number> = new Set([ArtNet.OpAddress, ArtNet.OpInput, ArtNet.OpIpProg]);
/** A source's name is read again this often, in packets. */
const NAME_EVERY = 64;

/** This program's own component ids: for slots that people took, and for routes. */
export interface OwnCids {
  readonly taken: Uint8Array;
  readonly routes: Uint8Array;
}

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
}

export class Ingest {
  readonly universes: LiveUniverse[] = [];
  readonly rejected: Record<string, number> = {};
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

  private reject(reason: string): void {
    this.rejected[reason] = (this.rejected[reason] ?? 0) + 1;
  }

  sacn(bytes: Uint8Array, address: string, now: number): void {
    const vector = readRoot(bytes);
    if (typeof vector === 'string') return this.reject(vector);
    if (vector !== Sacn.VECTOR_ROOT_E131_DATA) return this.sacnExtended(bytes, address, now);
    const data = this.sacnData;
    const reason = readDataFields(bytes, data);
    if (reason) return this.reject(reason);
    if (data.startCode !== Sacn.START_CODE_NULL && data.startCode !== Sacn.START_CODE_SLOT_PRIORITY)
      return this.reject('other-start-code');
    const universe = this.universe(data.universe);
    if (!universe) return this.reject('too-many-universes');
    const stream = this.sacnStream(universe, bytes, address, now);
    if (!stream) return this.reject('too-many-senders');
    this.packets += 1;
    const levels = data.startCode === Sacn.START_CODE_NULL;
    if (!stream.account.note(now, data.sequence, levels)) return;
    if (stream.account.packets % NAME_EVERY === 1) stream.name = readSourceName(bytes);
    if (data.options & Sacn.OPTION_STREAM_TERMINATED) {
      stream.account.terminate(now);
      universe.dirty = true;
      return;
    }
    const preview = (data.options & Sacn.OPTION_PREVIEW_DATA) !== 0;
    stream.priority = data.priority;
    stream.syncAddress = data.syncAddress;
    stream.account.preview = preview;
    stream.address = address;
    stream.forceSync = (data.options & Sacn.OPTION_FORCE_SYNCHRONIZATION) !== 0;
    if (levels) {
      if (this.sacnHeld(stream, now)) return stream.hold(bytes, Sacn.DATA_HEADER_LENGTH, data.slotCount, now);
      stream.setLevels(bytes, Sacn.DATA_HEADER_LENGTH, data.slotCount, now);
    } else stream.setSlotPriority(bytes, Sacn.DATA_HEADER_LENGTH, data.slotCount, now);
    universe.dirty = true;
    if (levels) this.listener.onLevels(universe.key, now);
  }

  /** When each synchronisation universe last gave its packet */
  private readonly syncs = new Map<number, number>();

  private sacnHeld(stream: Stream, now: number): boolean {
    if (stream.syncAddress === 0) return false;
    if (!this.syncs.has(stream.syncAddress)) {
      this.syncs.set(stream.syncAddress, -Infinity);
      this.listener.onSyncAddress(stream.syncAddress);
    }
    return sacnSync(stream.syncAddress, stream.forceSync, this.syncs.get(stream.syncAddress)!, now) === 'hold';
  }

  private sacnSynchronised(syncAddress: number, now: number): void {
    this.syncs.set(syncAddress, now);
    this.release((stream) => stream.origin.protocol === 'sacn' && stream.syncAddress === syncAddress, now);
  }

  /** When each Art-Net sender last sent ArtSync */
  private readonly artSyncs = new Map<string, number>();

  private artSynchronised(address: string, now: number): void {
    this.artSyncs.set(address, now);
    this.release((stream) => stream.origin.protocol === 'artnet' && stream.address === address, now);
  }

  private release(which: (stream: Stream) => boolean, now: number): void {
    for (const universe of this.universes) if (universe.release(which)) this.listener.onLevels(universe.key, now);
  }

  /** A source is known by its CID (E1.31-2018, 5.6). */
  private sacnStream(universe: LiveUniverse, bytes: Uint8Array, address: string, now: number): Stream | undefined {
    for (const stream of universe.streams) if (sameCid(stream.origin.cid, bytes, 22)) return stream;
    const cid = Uint8Array.prototype.slice.call(bytes, 22, 22 + Sacn.CID_LENGTH);
    const sent = sameCid(this.own.taken, bytes, 22)
      ? 'taken'
      : sameCid(this.own.routes, bytes, 22)
        ? 'route'
        : 'others';
    return universe.add({ protocol: 'sacn', address, cid, sent }, now);
  }

  private sacnExtended(bytes: Uint8Array, address: string, now: number): void {
    const decoded = decodeSacn(bytes);
    if (!decoded.ok) return this.reject(decoded.reason);
    this.packets += 1;
    if (decoded.value.kind === 'sync') this.sacnSynchronised(decoded.value.syncAddress, now);
    if (decoded.value.kind === 'discovery') this.listener.onDiscovered(decoded.value, address, now);
  }

  /** `sent` says whether the packet came from one of this program's own sending sockets. */
  artnet(bytes: Uint8Array, address: string, sent: SentBy, now: number): void {
    const opCode = readOpCode(bytes);
    if (opCode === ArtNet.OpDmx) return this.artDmx(bytes, address, sent, now);
    if (typeof opCode === 'string') return this.reject(opCode);
    if (opCode === ArtNet.OpPollReply) {
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
      this.artSynchronised(address, now);
    } else if (QUIET_OPCODES.has(opCode)) this.packets += 1;
    else this.reject('unknown-opcode');
  }

  private artDmx(bytes: Uint8Array, address: string, sent: SentBy, now: number): void {
    const { dmx } = this;
    const reason = readDmxFields(bytes, dmx);
    if (reason) return this.reject(reason);
    const universe = this.universe(wireKey({ protocol: 'artnet', number: dmx.portAddress }));
    if (!universe) return this.reject('too-many-universes');
    const stream =
      universe.streams.find((one) => one.origin.sent === sent && one.address === address) ??
      universe.add({ protocol: 'artnet', address, cid: new Uint8Array(0), sent }, now);
    if (!stream) return this.reject('too-many-senders');
    this.packets += 1;
    if (!stream.account.note(now, dmx.sequence, true)) return;
    const synced = this.artSyncs.get(address);
    if (synced !== undefined && artnetSync(universe.heard(now), synced, now) === 'hold')
      return stream.hold(bytes, DMX_HEADER, dmx.slotCount, now);
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
