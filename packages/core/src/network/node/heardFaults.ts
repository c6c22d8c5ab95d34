/** What is wrong with who is who on the wire: addresses and identities that two claim at once. */
import type { Heard } from './nodeReport';

export interface HeardFault {
  /** Stays the same while the fault does */
  readonly key: string;
  readonly sentence: string;
  readonly mend: string;
  /** Addresses of the machines that it is about */
  readonly addresses: readonly string[];
}

function* nodeFaults({ nodes }: Pick<Heard, 'nodes'>): Generator<HeardFault> {
  const shared = new Set<string>();
  for (const { address, mac, shortName, gone, alsoHere } of nodes) {
    if (gone || alsoHere.length === 0 || shared.has(address)) continue;
    shared.add(address);
    const names = nodes.flatMap((one) => (one.address === address && !one.gone ? one.shortName : []));
    yield {
      key: `address ${address}`,
      sentence: `${alsoHere.length + 1} boxes answer at ${address}: ${[mac, ...alsoHere].sort().join(' and ')}${names.length > 1 ? ` (${names.join(', ')})` : `, one of them as ${shortName}`}.`,
      mend: 'Give all but one of them another address: what is sent to this one reaches either, by chance.',
      addresses: [address],
    };
  }
  const told = new Set<string>();
  for (const { address, mac, gone, alsoAt } of nodes) {
    if (gone || alsoAt.length === 0 || told.has(mac)) continue;
    told.add(mac);
    const all = [address, ...alsoAt].sort();
    yield {
      key: `hardware ${mac}`,
      sentence: `The hardware address ${mac} answers at ${all.join(' and ')}.`,
      mend: 'Either one box has two addresses, or two boxes were made with one hardware address: unplug one, and see whether both go.',
      addresses: all,
    };
  }
}

function* twinFaults({ universes }: Pick<Heard, 'universes'>): Generator<HeardFault> {
  const byCid = new Map<string, { addresses: Set<string>; names: Set<string>; universes: number }>();
  for (const { streams } of universes) {
    const seen = new Set<string>();
    for (const { cid, twin, own, address, name } of streams) {
      if (!twin || own) continue;
      const one = byCid.get(cid) ?? { addresses: new Set(), names: new Set(), universes: 0 };
      byCid.set(cid, one);
      one.addresses.add(address);
      one.names.add(name || address);
      if (!seen.has(cid)) one.universes += 1;
      seen.add(cid);
    }
  }
  for (const [cid, { addresses, names, universes: count }] of byCid)
    yield {
      key: `component ${cid}`,
      sentence: `${[...names].join(' and ')} send with one component id from ${addresses.size === 1 ? `${[...addresses].join()}, by two programs` : [...addresses].join(' and ')}, on ${count} ${count === 1 ? 'universe' : 'universes'}.`,
      mend: 'Either a sender was copied with its id, which must be made anew there, or one sends by two interfaces. Receivers take the two for one, and lose packets of both.',
      addresses: [...addresses],
    };
}

/** Every such fault, each once. */
export const heardFaults = (heard: Pick<Heard, 'nodes' | 'universes'>): HeardFault[] => [
  ...nodeFaults(heard),
  ...twinFaults(heard),
];
