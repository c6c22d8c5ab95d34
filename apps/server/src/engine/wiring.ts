/** What each part of the engine is given of the others. */
import {
  LOWEST_PRIORITY,
  POLL_DIAGNOSTICS,
  POLL_DIAGNOSTICS_UNICAST,
  POLL_REPLY_ON_CHANGE,
} from '@taxiarch/core/protocol/artnet';
import { fromWireKey, wireKey } from '@taxiarch/core/base/address';
import { ArtNet } from '@taxiarch/core/protocol/artnet';
import type { Settings } from '@taxiarch/core/whole/contract';
import { ROUTE_KEYS } from '@taxiarch/core/whole/contract/feed';
import { formatUid, type Uid } from '@taxiarch/core/protocol/rdm';
import { Sacn } from '@taxiarch/core/protocol/sacn';
import { readU32 } from '@taxiarch/core/base/bytes';
import { broadcastOf, listInterfaces, plainTrouble } from '../bridge/interfaces';
import type { EngineWhole } from './whole';
import type { IngestListener } from './listening/ingest';
import type { OutputSettings, Surroundings } from './output/output';
import type { DeskWire } from './nodes/rdm/lampDesk';
import type { MembershipNeeds } from './listening/membership';
import type { PollingSurroundings } from './nodes/polling';
import type { RouterSurroundings } from './routing/router';
import type { PacketListener } from './sockets';
import type { SweepSurroundings } from './listening/sweep';

const isArtNetKey = (key: number): boolean => key < ROUTE_KEYS && fromWireKey(key).protocol === 'artnet';

/** A silent stream counts as lost after this long, ms. */
export const timeoutOf = (key: number, { artnetTimeout }: Pick<Settings, 'artnetTimeout'>): number =>
  key & 0x10000 ? artnetTimeout : Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS;

export const outputSettings = (settings: Settings): OutputSettings => ({
  rate: settings.outputRate,
  priority: settings.outputPriority,
  broadcast: settings.artnetBroadcast,
  sync: settings.outputSync,
  artSync: settings.outputArtSync,
});

export const ingestListener = (engine: EngineWhole): IngestListener => ({
  onLevels: (key, now) => engine.router.came(key, now),
  onSyncAddress: () => engine.membership.refresh(),
  onUniverse: (universe) => engine.reports.noteRow(universe),
  onDiscovered: (page, address, now) => {
    if (!engine.discovered.note(page, address, now)) engine.ingest.reject('too-many-announcers');
  },
  onOther: (kind, address, says) => engine.alsoHeard.note(kind, address, says, engine.unixTime()),
  onPoll: (poll, address) => engine.polling.answer(poll, address, engine.clock()),
  onPollReply: (reply, address, now) => {
    if (address !== engine.using.artnet?.address) engine.nodes.note(reply, address, now);
  },
  onIpProgReply: (reply, address) => engine.nodes.noteIp(reply, address),
  onLamps: (bytes, address) => engine.lamps.receive(bytes, address),
});

export const packetListener = (engine: EngineWhole): PacketListener => ({
  sacn: (bytes, address, port, via, at) => engine.ingest.sacn(bytes, address, port, at, via),
  artnet: (bytes, address, sent, via, at) => engine.ingest.artnet(bytes, address, sent, via, at),
  trouble: (error) => engine.trouble(plainTrouble(error)),
});

/** Keys of the sACN universes that are heard now. */
function* heardKeys(engine: EngineWhole): Iterable<number> {
  for (const universe of engine.ingest.universes)
    if (universe.hears(engine.clock(), engine.timeoutOf(universe.key))) yield universe.key;
}

function* syncUniverses(engine: EngineWhole): Iterable<number> {
  for (const { streams } of engine.ingest.universes) for (const { syncAddress } of streams) yield syncAddress;
}

export const membershipNeeds = (engine: EngineWhole): MembershipNeeds => ({
  opened: () => engine.watched,
  planned: () => engine.planned,
  routed: () => engine.router.sacnUniverses,
  syncs: () => syncUniverses(engine),
  heard: () => heardKeys(engine),
  announced: () => engine.discovered.universes(),
  swept: () => engine.sweep.universes(),
  most: () => engine.settings.mostGroups,
});

export const sweepSurroundings = (engine: EngineWhole): SweepSurroundings => ({
  room: () => engine.settings.mostGroups - engine.membership.before,
  changed: () => engine.membership.refresh(),
  hears: (universe) => engine.ingest.known(universe)?.hears(engine.clock(), engine.timeoutOf(universe)) ?? false,
  unixTime: () => engine.unixTime(),
});

export const outputSurroundings = (engine: EngineWhole): Surroundings => ({
  levelsOfOthers: (key) => engine.ingest.universe(key)!.levelsOfOthers(engine.clock(), engine.timeoutOf(key)),
  setTaken: (key, mask) => engine.ingest.universe(key)?.setTaken(mask),
  sendSacn: (bytes, universe) => engine.sockets.sendSacn(bytes, universe, engine.settings.sendIpv6),
  sendArtNet: (bytes, address) => engine.sockets.sendArtNet(bytes, address),
  artnetTargets: (portAddress) => engine.nodes.listeners(portAddress, engine.clock()),
  broadcastAddress: () => (engine.using.artnet ? broadcastOf(engine.using.artnet) : undefined),
  ownAddress: () => engine.using.artnet?.address,
});

/** TalkToMe of our polls: diagnostics to this computer only, and replies on change, where a person wants them. */
const pollAsks = ({ diagnostics, changes }: Settings) => ({
  flags: (diagnostics ? POLL_DIAGNOSTICS | POLL_DIAGNOSTICS_UNICAST : 0) | (changes ? POLL_REPLY_ON_CHANGE : 0),
  diagnosticsPriority: diagnostics ? LOWEST_PRIORITY : 0,
});

export const pollingSurroundings = (engine: EngineWhole): PollingSurroundings => ({
  wanted: () => engine.settings.poll,
  asks: () => pollAsks(engine.settings),
  artnet: () => engine.using.artnet,
  send: (bytes, to) => engine.sockets.sendFromArtNetPort(bytes, to),
  toAskForIp: (now, before) => engine.nodes.toAskForIp(now, before),
  toList: () => ({
    wanted: engine.settings.listed
      ? [...engine.watched, ...engine.planned].filter(isArtNetKey).map((key) => fromWireKey(key).number)
      : [],
    most: engine.settings.listedMost,
  }),
  hears: (portAddress) => {
    const universe = engine.ingest.known(wireKey({ protocol: 'artnet', number: portAddress }));
    return universe?.hears(engine.clock(), engine.timeoutOf(universe.key)) ?? false;
  },
});

export const routerSurroundings = (engine: EngineWhole): RouterSurroundings => ({
  universe: (key) => engine.ingest.known(key),
  timeoutOf: (key) => engine.timeoutOf(key),
  isHot: () => engine.output.isHot,
  sacn: (bytes, universe, address, by) =>
    engine.sockets.sendRoutedSacn(bytes, universe, address, by, engine.settings.sendIpv6),
  artnet: (bytes, address, by) => engine.sockets.sendRoutedArtNet(bytes, address, by),
  artnetListeners: (portAddress) => {
    const own = engine.using.artnet?.address;
    const others = engine.nodes.listeners(portAddress, engine.clock()).addresses;
    return own === undefined || others.includes(own) ? others : [...others, own];
  },
  broadcastAddress: (by) => {
    const found = by === '' ? engine.using.artnet : listInterfaces().find(({ address }) => address === by);
    return found ? broadcastOf(found) : undefined;
  },
});

export const lampWire = (engine: EngineWhole): DeskWire => ({
  send: (bytes, address) => engine.sockets.sendFromArtNetPort(bytes, address),
  now: engine.clock,
  share: () => engine.settings.rdmShare / 100,
});

/** A number of our own among those that are free for tests, told apart by the component id (ANSI E1.20, annex F). */
export const ownUid = (cid: Uint8Array): Uid => formatUid(OWN_MAKER, readU32(cid, 0) >>> 1);
const OWN_MAKER = 0x7ff0;

/** Art-Net asks this often for nodes, in milliseconds (Art-Net 4, ArtPoll). */
export const POLL_MS = ArtNet.POLL_INTERVAL_MS;
