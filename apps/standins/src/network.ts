/** UDP as a stand-in has it: its own loopback address, multicast and broadcast beside it. */
import { createSocket, type Socket } from 'node:dgram';

const LOOPBACK = '127.0.0.1';
export const BROADCAST = '127.255.255.255';

/** UDP ports of the protocols, and the TCP port of the front panels. */
export interface Ports {
  readonly sacn: number;
  readonly artnet: number;
  readonly panel: number;
}

export type Heard = (bytes: Uint8Array, from: string) => void;

/** A socket on `address` and `port`; messages go to `receive`. */
export function open(address: string, port: number, receive?: Heard): Promise<Socket> {
  return new Promise((resolve, reject) => {
    // Addresses are numbers here: there is nothing to look up.
    const socket = createSocket({
      type: 'udp4',
      reuseAddr: true,
      lookup: (address, _, done) => done(null, address, 4),
    });
    socket.once('error', reject);
    if (receive) socket.on('message', (bytes, from) => receive(bytes, from.address));
    socket.bind(port, address, () => {
      socket.setMulticastInterface(LOOPBACK);
      socket.setMulticastLoopback(true);
      socket.setBroadcast(true);
      resolve(socket);
    });
  });
}

/** A socket that hears one multicast group and nothing else; undefined where the system cannot bind to a group. */
async function openGroup(group: string, port: number, receive: Heard): Promise<Socket | undefined> {
  try {
    const socket = await open(group, port, receive);
    socket.addMembership(group, LOOPBACK);
    return socket;
  } catch {
    return undefined;
  }
}

/** Joins multicast groups on loopback, with more sockets where the system allows few groups a socket. */
async function join(socket: Socket, groups: readonly string[]): Promise<Socket[]> {
  const more: Socket[] = [];
  for (const group of groups) {
    try {
      (more[more.length - 1] ?? socket).addMembership(group, LOOPBACK);
    } catch {
      const holder = await open('0.0.0.0', 0);
      holder.addMembership(group, LOOPBACK);
      more.push(holder);
    }
  }
  return more;
}

/**
 * Sockets that hear multicast groups on loopback: one for each group, so that what others on this computer joined
 * costs nothing here; where that cannot be, one for all.
 */
export async function hearGroups(port: number, groups: readonly string[], receive: Heard): Promise<Socket[]> {
  const own = await Promise.all(groups.map((group) => openGroup(group, port, receive)));
  const sockets = own.filter((socket) => socket !== undefined);
  const others = groups.filter((_, i) => own[i] === undefined);
  if (others.length === 0) return sockets;
  const all = await open('0.0.0.0', port, receive);
  return [...sockets, all, ...(await join(all, others))];
}
