/** What each part of the engine is given of the others. */
import { fromWireKey, wireKey } from '@taxiarch/core/address';
import { ArtNet } from '@taxiarch/core/artnet';
import type { Settings } from '@taxiarch/core/contract';
import { ROUTE_KEYS } from '@taxiarch/core/contract/feed';
import { Sacn } from '@taxiarch/core/sacn';
import { broadcastOf, listInterfaces, plainTrouble } from '../bridge/interfaces';
import type { EngineWhole } from './whole';
import type { IngestListener } from './ingest';
import type { OutputSettings, Surroundings } from './output';
import type { PollingSurroundings } from './polling';
import type { RouterSurroundings } from './router';
import type { PacketListener } from './sockets';

const isArtNetKey = (key: number): boolean => key < ROUTE_KEYS && fromWireKey(key).protocol === 'artnet';

/** A silent stream counts as lost after this long, ms. */
export const timeoutOf = (key: number, { artnetTimeout }: Pick<Settings, 'artnetTimeout'>): number =>
  key & 0x10000 ? artnetTimeout : Sacn.E131_NETWORK_DATA_LOSS_TIMEOUT_MS;

export const outputSettings = ({ outputRate, outputPriority, artnetBroadcast }: Settings): OutputSettings => ({
  rate: outputRate,
  priority: outputPriority,
  broadcast: artnetBroadcast,
});

export const ingestListener = (engine: EngineWhole): IngestListener => ({
  onLevels: (key, now) => engine.router.came(key, now),
  onSyncAddress: (universe) => engine.sockets.join([universe]),
  onUniverse: (universe) => engine.reports.noteRow(universe),
  onDiscovered: (page, address, now) => {
    engine.discovered.note(page, address, now);
    engine.sockets.join(page.universes);
  },
  onPoll: (poll, address) => engine.polling.answer(poll, address, engine.clock()),
  onPollReply: (reply, address, now) => {
    if (address !== engine.using.artnet?.address) engine.nodes.note(reply, address, now);
  },
  onIpProgReply: (reply, address) => engine.nodes.noteIp(reply, address),
});

export const packetListener = (engine: EngineWhole): PacketListener => ({
  sacn: (bytes, address, at) => engine.ingest.sacn(bytes, address, at),
  artnet: (bytes, address, sent, at) => engine.ingest.artnet(bytes, address, sent, at),
  trouble: (error) => engine.trouble(plainTrouble(error)),
});

export const outputSurroundings = (engine: EngineWhole): Surroundings => ({
  levelsOfOthers: (key) => engine.ingest.universe(key)!.levelsOfOthers(engine.clock(), engine.timeoutOf(key)),
  setTaken: (key, mask) => engine.ingest.universe(key)?.setTaken(mask),
  sendSacn: (bytes, universe) => engine.sockets.sendSacn(bytes, universe),
  sendArtNet: (bytes, address) => engine.sockets.sendArtNet(bytes, address),
  artnetTargets: (portAddress) => engine.nodes.listeners(portAddress, engine.clock()),
  broadcastAddress: () => (engine.using.artnet ? broadcastOf(engine.using.artnet) : undefined),
  ownAddress: () => engine.using.artnet?.address,
});

export const pollingSurroundings = (engine: EngineWhole): PollingSurroundings => ({
  wanted: () => engine.settings.poll,
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
    return (
      universe?.streams.some(({ account }) => !account.lost(engine.clock(), engine.timeoutOf(universe.key))) ?? false
    );
  },
});

export const routerSurroundings = (engine: EngineWhole): RouterSurroundings => ({
  universe: (key) => engine.ingest.known(key),
  timeoutOf: (key) => engine.timeoutOf(key),
  isHot: () => engine.output.isHot,
  sacn: (bytes, universe, address, by) => engine.sockets.sendRoutedSacn(bytes, universe, address, by),
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

/** Art-Net asks this often for nodes, in milliseconds (Art-Net 4, ArtPoll). */
export const POLL_MS = ArtNet.POLL_INTERVAL_MS;
