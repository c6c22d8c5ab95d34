/** The network interfaces of this computer, and which of them the engine uses. */
import { existsSync, readFileSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import type { Settings } from '@taxiarch/core/whole/contract';
import { inNetwork, type InterfaceInfo, ipNumber } from '@taxiarch/core/network/ip';
import type { Network } from '@taxiarch/core/show/records';

export interface Ports {
  readonly sacn: number;
  readonly artnet: number;
}

/** The interface of each protocol; null while it is gone. */
export interface Using {
  readonly sacn: InterfaceInfo | null;
  readonly artnet: InterfaceInfo | null;
}

const LINUX_INTERFACES = '/sys/class/net';
const WIRELESS = /^(wl|wi-?fi|ath|ra\d|wwan)/i;
const VIRTUAL = /^(veth|docker|br-|virbr|vmnet|vbox|tun|tap|utun|bridge|zt|wg)/i;

/** What carries an interface, as far as the system or its name tells. */
export function mediumOf(name: string, loopback: boolean): InterfaceInfo['medium'] {
  if (loopback) return 'loopback';
  const folder = join(LINUX_INTERFACES, name);
  if (existsSync(folder)) {
    if (existsSync(join(folder, 'wireless'))) return 'wireless';
    return existsSync(join(folder, 'device')) && !VIRTUAL.test(name) ? 'wired' : 'virtual';
  }
  if (WIRELESS.test(name)) return 'wireless';
  if (VIRTUAL.test(name)) return 'virtual';
  return WIRED.test(name) ? 'wired' : 'unknown';
}

/** Whether a cable is in and the other end is there, where the system tells. */
function isUp(name: string): boolean {
  try {
    return readFileSync(join(LINUX_INTERFACES, name, 'operstate'), 'utf8').trim() !== 'down';
  } catch {
    return true;
  }
}

/** All IPv4 addresses of this computer as the system gives them now. */
export function listInterfaces(): InterfaceInfo[] {
  return Object.entries(networkInterfaces()).flatMap(([name, addresses]) =>
    (addresses ?? [])
      .filter((one) => one.family === 'IPv4')
      .map(({ address, netmask, mac, internal }) => ({
        name,
        address,
        netmask,
        mac,
        loopback: internal,
        medium: mediumOf(name, internal),
        up: isUp(name),
      })),
  );
}

/** An interface as IPv6 names it where groups are joined and left: by its zone. */
export const zoneOf = ({ name }: Pick<InterfaceInfo, 'name'>): string => `::%${name}`;

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
 * The interface to use: the one with the address chosen, or null while it is gone; for `plan` the
 * first whose address lies in a plan of addresses; for `auto`, or where no plan fits, the first wired
 * one, else any to other machines, else loopback.
 */
export function chooseInterface(
  all: readonly InterfaceInfo[],
  chosen: string,
  networks: readonly Network[] = [],
): InterfaceInfo | null {
  if (chosen !== 'auto' && chosen !== 'plan') {
    const found = all.find((one) => one.address === chosen);
    // Every address of 127.0.0.0/8 is this computer, though the system lists only the first.
    const loopback = chosen.startsWith('127.') ? all.find((one) => one.loopback) : undefined;
    return found ?? (loopback ? { ...loopback, address: chosen } : null);
  }
  if (chosen === 'plan') {
    const planned = networks.flatMap(({ network, prefix }) =>
      all.filter(({ address }) => inNetwork(ipNumber(address) ?? 0, ipNumber(network) ?? 0, prefix)),
    );
    if (planned[0]) return planned[0];
  }
  const outward = all.filter((one) => !one.loopback);
  return outward.find((one) => WIRED.test(one.name)) ?? outward[0] ?? all[0] ?? null;
}

/** The interface of each protocol. */
export function chooseInterfaces(
  all: readonly InterfaceInfo[],
  { interface: chosen, artnetInterface }: Pick<Settings, 'interface' | 'artnetInterface'>,
  networks: readonly Network[],
): Using {
  const sacn = chooseInterface(all, chosen, networks);
  return { sacn, artnet: artnetInterface === 'same' ? sacn : chooseInterface(all, artnetInterface, networks) };
}

/** The directed broadcast address of an interface's subnet. */
export function broadcastOf({ address, netmask }: InterfaceInfo): string {
  const mask = netmask.split('.').map(Number);
  return address
    .split('.')
    .map((part, i) => (Number(part) & mask[i]!) | (~mask[i]! & 0xff))
    .join('.');
}
