/** What really leaves the ports of the stand-ins, read at their panels: the judge of what Taxiarch says. */
import { wireKey } from '@taxiarch/core/base/address';
import { mainAddress } from '@taxiarch/core/network/ip';
import { nightFerry } from '@taxiarch/core/whole/demo';
import { PANEL } from '../server';
import { wait } from '../figure';

const SAMPLES = 12;
const APART_MS = 150;

interface PanelPort {
  readonly use: string;
  readonly protocol: 'sacn' | 'artnet';
  readonly wire: number;
  readonly output: readonly number[];
  /** Address of who controls each slot; empty for nobody */
  readonly owners: readonly string[];
}

/** Who controlled each slot of a port over two seconds, by address; nobody where nothing left it. */
export interface Leaving {
  readonly key: number;
  readonly owners: readonly ReadonlySet<string>[];
}

const addresses = nightFerry()
  .machine.filter(({ ports, controller }) => ports.length > 0 || controller)
  .map(mainAddress);

async function portsAt(address: string): Promise<PanelPort[]> {
  try {
    const response = await fetch(`http://${address}:${PANEL}/ports`, { signal: AbortSignal.timeout(800) });
    return (await response.json()) as PanelPort[];
  } catch {
    return [];
  }
}

/** Every output of every node, by address and port. */
export async function leaving(): Promise<ReadonlyMap<string, Leaving>> {
  const seen = new Map<string, { key: number; owners: Set<string>[] }>();
  for (let sample = 0; sample < SAMPLES; sample += 1) {
    const all = await Promise.all(addresses.map(async (address) => [address, await portsAt(address)] as const));
    for (const [address, ports] of all)
      for (const [i, { use, protocol, wire, output, owners }] of ports.entries()) {
        if (use !== 'out') continue;
        const id = `${address} ${i + 1}`;
        const known = seen.get(id) ?? {
          key: wireKey({ protocol, number: wire }),
          owners: owners.map(() => new Set<string>()),
        };
        seen.set(id, known);
        owners.forEach((owner, slot) => known.owners[slot]!.add(output.length > 0 ? owner : ''));
      }
    await wait(APART_MS);
  }
  return seen;
}

/** By wire key, slots (0–511) that somebody else controls than before, be it for a moment. */
export function changedBetween(
  before: ReadonlyMap<string, Leaving>,
  now: ReadonlyMap<string, Leaving>,
  stranger: string,
): ReadonlyMap<number, ReadonlySet<number>> {
  const changed = new Map<number, Set<number>>();
  for (const [id, { key, owners }] of before)
    owners.forEach((were, slot) => {
      const are = now.get(id)?.owners[slot];
      // Of those who are planned one may give way to another while this computer is busy.
      if (are && !are.has(stranger) && [...were].some((one) => are.has(one))) return;
      changed.set(key, (changed.get(key) ?? new Set()).add(slot));
    });
  return changed;
}
