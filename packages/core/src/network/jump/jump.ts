/** Jump: one box for everything. What a person typed, turned into places to go to, likeliest first. */
import { formatAddress, readAddress, readShowUniverse } from '../../base/address';
import { mainAddress } from '../ip';
import type { Lamp, ShowRecords, Universe } from '../../show/records';

export type JumpTarget =
  | { readonly kind: 'slot'; readonly universe: number; readonly channel: number; readonly label: string }
  | { readonly kind: 'universe'; readonly universe: number; readonly label: string }
  | { readonly kind: 'lamp'; readonly id: string; readonly label: string }
  /** `key`: the planned machine's id, or the address of one that is only heard */
  | { readonly kind: 'machine'; readonly key: string; readonly label: string };

/** A device that was heard, as far as jump needs it. */
export interface HeardDevice {
  readonly address: string;
  readonly name: string;
}

const MOST_TARGETS = 12;

/** True if every word of `query` begins or lies in a word of `text`; case is ignored. */
export function matchesWords(text: string, query: string): boolean {
  const there = text.toLowerCase();
  return query
    .toLowerCase()
    .split(/\s+/)
    .every((word) => there.includes(word));
}

export const lampLabel = (lamp: Lamp): string => `${lamp.number} ${lamp.name}, ${formatAddress(lamp)}`;

const universeTarget = ({ number, name }: Universe): JumpTarget => ({
  kind: 'universe',
  universe: number,
  label: name ? `Universe ${number}, ${name}` : `Universe ${number}`,
});

interface Findable extends HeardDevice {
  readonly key: string;
}

const machineTarget = ({ key, address, name }: Findable): JumpTarget => ({
  kind: 'machine',
  key,
  label: [name, address].filter((part) => part !== '').join(', '),
});

/** Planned machines, and those heard at addresses that no plan names. */
function machinesOf({ machine }: ShowRecords, heard: readonly HeardDevice[]): Findable[] {
  const planned = machine.map((one) => ({ key: one.id, name: one.name, address: mainAddress(one) }));
  const known = new Set(planned.map(({ address }) => address));
  return [
    ...planned,
    ...heard.filter(({ address }) => !known.has(address)).map((one) => ({ ...one, key: one.address })),
  ];
}

/** Places for `3/47`, `u12`, `101`, `127.0.0.14` or part of a name; empty if nothing fits. */
export function findJumps(typed: string, show: ShowRecords, heard: readonly HeardDevice[]): JumpTarget[] {
  const query = typed.trim();
  if (query === '') return [];
  const targets: JumpTarget[] = [];
  const address = readAddress(query);
  if (address.ok) targets.push({ kind: 'slot', ...address.value, label: `Slot ${formatAddress(address.value)}` });
  if (/^u\s*\d+$/i.test(query)) {
    const number = readShowUniverse(query);
    targets.push(...show.universe.filter((one) => number.ok && one.number === number.value).map(universeTarget));
  }
  if (/^\d+$/.test(query)) {
    const exact = show.lamp.filter((lamp) => String(lamp.number) === query);
    const begins = show.lamp
      .filter((lamp) => String(lamp.number).startsWith(query) && String(lamp.number) !== query)
      .sort((a, b) => a.number - b.number);
    targets.push(
      ...[...exact, ...begins].map((lamp) => ({ kind: 'lamp', id: lamp.id, label: lampLabel(lamp) }) as const),
    );
  } else {
    const named = machinesOf(show, heard).filter((one) => matchesWords(`${one.name} ${one.address}`, query));
    const lamps = show.lamp.filter((lamp) => matchesWords(`${lamp.number} ${lamp.name}`, query));
    targets.push(
      ...named.map(machineTarget),
      ...show.universe.filter((one) => matchesWords(one.name, query)).map(universeTarget),
      ...lamps
        .sort((a, b) => a.number - b.number)
        .map((lamp) => ({ kind: 'lamp', id: lamp.id, label: lampLabel(lamp) }) as const),
    );
  }
  return targets.slice(0, MOST_TARGETS);
}
