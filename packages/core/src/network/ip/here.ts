/** What stands against the interface that this computer uses. */
import type { InterfaceInfo } from './interfaceInfo';
import type { ShowRecords } from '../../show/records';
import { inNetwork, ipNumber, maskLength } from './ipv4';

/** What should make a person look twice at the interface in use. */
export function interfaceWarnings(
  inUse: InterfaceInfo | null,
  protocol: string,
  { machine, network }: Pick<ShowRecords, 'machine' | 'network'>,
): string[] {
  if (!inUse)
    return [`No interface is in use for ${protocol}: the one chosen is gone. Taxiarch goes on when it returns.`];
  const { name, address, medium, up, loopback } = inUse;
  const number = ipNumber(address)!;
  const remote = network.some(({ standIn }) => !standIn) || (network.length === 0 && machine.length > 0);
  return [
    !up && `${name} is down: no cable, or nothing at its other end.`,
    medium === 'wireless' &&
      `${name} is wireless. Packets get lost there, and multicast most of all. Use a cable for the show.`,
    loopback &&
      remote &&
      `${protocol} goes by loopback, which reaches this computer alone; the show has machines elsewhere.`,
    network.length > 0 &&
      !network.some((one) => inNetwork(number, ipNumber(one.network)!, one.prefix)) &&
      `${address} lies in no plan of addresses, so planned machines may not be reached from here.`,
  ].filter((one) => one !== false);
}

/** Whether an address lies in the network of an interface. */
export function isNear(
  address: string,
  { address: own, netmask }: Pick<InterfaceInfo, 'address' | 'netmask'>,
): boolean {
  const [at, here, prefix] = [ipNumber(address), ipNumber(own), maskLength(netmask)];
  return at !== undefined && here !== undefined && prefix !== undefined && inNetwork(at, here, prefix);
}
