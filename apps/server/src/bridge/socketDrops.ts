/** Packets that the system threw away because a socket of ours was full. Linux tells; elsewhere nobody knows. */
import { readFileSync, readdirSync, readlinkSync } from 'node:fs';

/** Local port and inode of each UDP socket of the system, and packets that it lost, as Linux lists them. */
export function readUdpTable(text: string): { port: number; inode: string; drops: number }[] {
  return text
    .split('\n')
    .slice(1)
    .flatMap((line) => {
      const parts = line.trim().split(/\s+/);
      if (parts.length < 13) return [];
      return [{ port: parseInt(parts[1]!.split(':')[1]!, 16), inode: parts[9]!, drops: Number(parts[12]) }];
    });
}

/** Inodes of this process's own sockets. */
function ownSockets(): Set<string> {
  const inodes = new Set<string>();
  for (const fd of readdirSync('/proc/self/fd')) {
    try {
      const inode = /^socket:\[(\d+)\]$/.exec(readlinkSync(`/proc/self/fd/${fd}`))?.[1];
      if (inode !== undefined) inodes.add(inode);
    } catch {
      // Closed in the meantime.
    }
  }
  return inodes;
}

/** Packets that this process's sockets on these ports lost since they were opened; undefined where the system does not tell. */
export function socketDrops(ports: readonly number[]): number | undefined {
  if (process.platform !== 'linux') return undefined;
  try {
    const own = ownSockets();
    return readUdpTable(readFileSync('/proc/self/net/udp', 'utf8'))
      .filter(({ port, inode }) => ports.includes(port) && own.has(inode))
      .reduce((sum, { drops }) => sum + drops, 0);
  } catch {
    return undefined;
  }
}
