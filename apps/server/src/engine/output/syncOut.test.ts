/** Frames that are let out together: each waits for its packet, and one packet follows all of them. */
import { wireKey } from '@taxiarch/core/base/address';
import { decodeArtNet } from '@taxiarch/core/protocol/artnet';
import { type SacnData, type SacnSync, decodeSacn } from '@taxiarch/core/protocol/sacn';
import { type Route, PLAIN_INPUT, PLAIN_ROUTE } from '@taxiarch/core/show/records';
import { Output, type OutputSettings } from './output';
import { Router } from '../routing/router';
import { SharedLevels } from '../../bridge/shared';

const CID = new Uint8Array(16).fill(4);
type Sent = { to: number | string; packet: SacnData | SacnSync | { kind: string } };

const sacnIn = (bytes: Uint8Array): Sent['packet'] => {
  const read = decodeSacn(bytes);
  if (!read.ok) throw new Error(read.reason);
  return read.value as Sent['packet'];
};
const artnetIn = (bytes: Uint8Array): Sent['packet'] => {
  const read = decodeArtNet(bytes);
  if (!read.ok) throw new Error(read.reason);
  return read.value as Sent['packet'];
};
const kinds = (sent: readonly Sent[]) => sent.map(({ to, packet }) => `${packet.kind} ${to}`);

function outputWith(settings: Partial<OutputSettings>) {
  const sent: Sent[] = [];
  const all = { rate: 44, priority: 150, broadcast: false, sync: 0, artSync: false, ...settings };
  const output = new Output(CID, all, {
    levelsOfOthers: () => new Uint8Array(512),
    setTaken: () => undefined,
    sendSacn: (bytes, universe) => sent.push({ to: universe, packet: sacnIn(bytes) }),
    sendArtNet: (bytes, address) => sent.push({ to: address, packet: artnetIn(bytes) }),
    artnetTargets: () => ({ addresses: ['10.0.0.31'], ltp: false }),
    broadcastAddress: () => '10.255.255.255',
    ownAddress: () => undefined,
  });
  output.makeHot('Mara', 1);
  const take = (...keys: number[]) =>
    output.take(
      {
        client: 'a',
        by: 'Mara',
        stay: false,
        universes: keys.map((key) => ({ key, show: key, levels: [[0, 255] as const] })),
      },
      1,
    );
  return { output, sent, take };
}

test('by default nothing waits, and no packet lets anything out', () => {
  const { output, sent, take } = outputWith({});
  take(3, wireKey({ protocol: 'artnet', number: 5 }));
  output.tick(1000);
  expect(sent.some(({ packet }) => packet.kind === 'sync')).toBe(false);
  expect(sent.flatMap(({ packet }) => ('syncAddress' in packet ? packet.syncAddress : []))).toEqual([0, 0]);
});

test('what is taken on several universes waits for one packet, which follows them all and counts on', () => {
  const { output, sent, take } = outputWith({ sync: 7999 });
  take(3, 4);
  output.tick(1000);
  expect(
    sent
      .filter(({ packet }) => packet.kind === 'data')
      .every(({ packet }) => (packet as SacnData).syncAddress === 7999),
  ).toBe(true);
  expect(kinds(sent).at(-1)).toBe('sync 7999');
  expect(kinds(sent).filter((one) => one.startsWith('sync'))).toHaveLength(1);
  output.tick(1025);
  const syncs = sent.map(({ packet }) => packet).filter((packet): packet is SacnSync => packet.kind === 'sync');
  expect(syncs.map(({ sequence }) => sequence)).toEqual([0, 1]);
});

test('ArtSync goes to everybody after a round, and only where Art-Net was sent', () => {
  const { output, sent, take } = outputWith({ artSync: true });
  take(3);
  output.tick(1000);
  expect(kinds(sent)).not.toContain('sync 10.255.255.255');
  take(wireKey({ protocol: 'artnet', number: 5 }));
  output.tick(1025);
  expect(kinds(sent).slice(-2)).toEqual(['dmx 10.0.0.31', 'sync 10.255.255.255']);
});

test('routes of one synchronisation universe are let out by one packet; one without it is not held', () => {
  const sent: Sent[] = [];
  const router = new Router(CID, new SharedLevels(), {
    sacn: (bytes, universe) => sent.push({ to: universe, packet: sacnIn(bytes) }),
    artnet: (bytes, address) => sent.push({ to: address, packet: artnetIn(bytes) }),
    artnetListeners: () => ['10.0.0.31'],
    broadcastAddress: () => '10.255.255.255',
    universe: () => undefined,
    timeoutOf: () => 2500,
    isHot: () => true,
  });
  const hand = { first: 1, last: 1, by: 'hand' as const, level: 9, from: null };
  const route = (id: string, number: number, over: Partial<Route> = {}): Route => ({
    ...PLAIN_ROUTE,
    ...{ id, rev: 1, name: id, order: 0, out: { protocol: 'sacn', number }, parts: [hand] },
    ...{ inputs: [1, 2].map((from) => ({ ...PLAIN_INPUT, wire: { protocol: 'sacn' as const, number: from } })) },
    ...over,
  });
  const routes = [route('a', 11, { sync: 500 }), route('b', 12, { sync: 500 }), route('c', 13)];
  const art = route('d', 0, { out: { protocol: 'artnet', number: 14 }, sync: 1 });
  router.setPlan({ routes: [...routes, art], controls: [], reach: [] });
  router.run(['a', 'b', 'c', 'd'], true, 'Mara', 1);
  router.tick(1000);
  expect(kinds(sent)).toEqual(['data 11', 'data 12', 'data 13', 'dmx 10.0.0.31', 'sync 500', 'sync 10.255.255.255']);
  expect(sent.map(({ packet }) => ('syncAddress' in packet ? packet.syncAddress : null))).toEqual([
    500,
    500,
    0,
    null,
    500,
    null,
  ]);
  // Nothing has left since: nothing is let out.
  router.tick(1001);
  expect(sent).toHaveLength(6);
  expect(router.sacnUniverses).toContain(500);
});
