/** The network interfaces of this computer, and which of them the engine uses. */
import { networkInterfaces } from 'node:os';
import type { InterfaceInfo } from '@taxiarch/core/contract';

/** All IPv4 addresses of this computer as the system gives them now. */
export function listInterfaces(): InterfaceInfo[] {
  return Object.entries(networkInterfaces()).flatMap(([name, addresses]) =>
    (addresses ?? [])
      .filter((one) => one.family === 'IPv4')
      .map(({ address, netmask, mac, internal }) => ({ name, address, netmask, mac, loopback: internal })),
  );
}

/** What a socket's error means to a person, and what to look at. */
export function plainTrouble(error: NodeJS.ErrnoException): string {
  switch (error.code) {
    case 'ENETUNREACH':
    case 'EHOSTUNREACH':
    case 'ENETDOWN':
      return 'The network cannot be reached by the interface in use. Look at its cable, or choose another.';
    case 'EADDRNOTAVAIL':
      return 'The address of the interface in use is gone from this computer. Look at its cable, or choose another.';
    case 'EACCES':
    case 'EPERM':
      return 'This computer does not let Taxiarch send there. Look at its firewall.';
    default:
      return `The network refused to work: ${error.message}. Look at the interface in use.`;
  }
}

const WIRED = /^(en|eth|Ethernet)/i;

/**
 * The interface to use: the one with the address chosen, or null while it is gone; for `auto` the
 * first wired one, else any to other machines, else loopback.
 */
export function chooseInterface(all: readonly InterfaceInfo[], chosen: string): InterfaceInfo | null {
  if (chosen !== 'auto') {
    const found = all.find((one) => one.address === chosen);
    // Every address of 127.0.0.0/8 is this computer, though the system lists only the first.
    const loopback = chosen.startsWith('127.') ? all.find((one) => one.loopback) : undefined;
    return found ?? (loopback ? { ...loopback, address: chosen } : null);
  }
  const outward = all.filter((one) => !one.loopback);
  return outward.find((one) => WIRED.test(one.name)) ?? outward[0] ?? all[0] ?? null;
}

/** The directed broadcast address of an interface's subnet. */
export function broadcastOf({ address, netmask }: InterfaceInfo): string {
  const mask = netmask.split('.').map(Number);
  return address
    .split('.')
    .map((part, i) => (Number(part) & mask[i]!) | (~mask[i]! & 0xff))
    .join('.');
}
