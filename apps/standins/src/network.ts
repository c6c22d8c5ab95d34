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

/** A socket on `address` and `port`; messages go to `receive`. */
export function open(
  address: string,
  port: number,
  receive?: (bytes: Uint8Array, from: string) => void,
): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = createSocket({ type: 'udp4', reuseAddr: true });
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

/** Joins multicast groups on loopback, with more sockets where the system allows few groups a socket. */
export async function join(socket: Socket, groups: readonly string[]): Promise<Socket[]> {
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
