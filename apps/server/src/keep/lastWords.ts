/**
 * Ends streams for a sender that cannot any more. Receivers wait 2.5 s for a source that fell silent, and may hold
 * its levels for longer; one that is terminated is let go at once (ANSI E1.31-2018, 6.2.6, 6.7.1).
 */
import { createSocket, type Socket } from 'node:dgram';
import { SLOTS, multicastGroup } from '@taxiarch/core/base/address';
import { encodeData, parseCid } from '@taxiarch/core/protocol/sacn';
import { OWN_NAME } from '@taxiarch/core/signal/stream';

/** An sACN stream that is being sent */
export interface Sending {
  readonly cid: string;
  readonly universe: number;
  /** Of its last packet that is known of */
  readonly sequence: number;
  readonly priority: number;
  /** Address of the interface by which it leaves */
  readonly by: string;
  /** Addresses to which it goes; empty for its multicast group */
  readonly to: readonly string[];
}

/**
 * How far ahead the last packets are numbered. Which number was really sent last is not known; of four that stand a
 * quarter of the circle apart a receiver discards one at most as late (6.7.2).
 */
const OFFSETS = [0, 64, 128, 192];

const opened = (address: string): Promise<Socket> =>
  new Promise((resolve, reject) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
    socket.once('error', reject);
    socket.bind(0, address, () => {
      socket.setMulticastInterface(address);
      socket.setMulticastTTL(16);
      resolve(socket);
    });
  });

/** Sends the last packets of each stream to its UDP port. What cannot be sent any more is let be. */
export async function endStreams(streams: readonly Sending[], port: number): Promise<void> {
  for (const by of new Set(streams.map((stream) => stream.by))) {
    const socket = await opened(by).catch(() => undefined);
    if (!socket) continue;
    const sent: Promise<void>[] = [];
    for (const { cid, universe, sequence, priority, to } of streams.filter((stream) => stream.by === by))
      for (const offset of OFFSETS) {
        const bytes = encodeData({
          cid: parseCid(cid),
          sourceName: OWN_NAME,
          priority,
          syncAddress: 0,
          sequence: (sequence + 1 + offset) & 0xff,
          preview: false,
          terminated: true,
          forceSync: false,
          universe,
          startCode: 0,
          slots: new Uint8Array(SLOTS),
        });
        for (const address of to.length > 0 ? to : [multicastGroup(universe)])
          sent.push(new Promise((done) => socket.send(bytes, port, address, () => done())));
      }
    await Promise.all(sent);
    socket.close();
  }
}
