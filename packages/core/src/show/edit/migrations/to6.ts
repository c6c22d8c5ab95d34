/** What a sender sends became part of its machine; until then the two were joined by name, or by address. */
import type { Loose, LooseShow, Step } from './step';

interface OldSource extends Loose {
  readonly id: string;
  readonly rev: number;
  readonly name: string;
  readonly address: string;
  readonly ranges: readonly Loose[];
  readonly pennant: unknown;
}

interface OldMachine extends Loose {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly notes: string;
  readonly interfaces: readonly (Loose & { readonly addresses: readonly { readonly address: string }[] })[];
  readonly sends?: { readonly lines: readonly Loose[]; readonly pennant: unknown } | null;
}

const MACHINE = {
  kind: 'console',
  modelId: null,
  placeId: null,
  notes: '',
  firmware: '',
  mode: '',
  serial: '',
  locked: false,
  ports: [],
  controller: null,
  ticks: [],
} as const;

const addressesOf = ({ interfaces }: OldMachine): string[] =>
  interfaces.flatMap(({ addresses }) => addresses.map(({ address }) => address));

/** Private networks of class C have masks of 24 bits, the others of this trade 8. */
const planned = (address: string) => ({ way: 'fixed', address, prefix: address.startsWith('192.168.') ? 24 : 8 });

/** A machine made of a sender that had none. */
const made = ({ id, rev, name, address }: OldSource): OldMachine => ({
  ...MACHINE,
  id,
  rev,
  name,
  interfaces: [{ name: '', mac: '', addresses: address === '' ? [] : [planned(address)] }],
  sends: null,
});

/** Machines without an address of their own: what they send comes from the machine that they are plugged into. */
const OFF_NETWORK = new Set(['DMX desk', 'USB adapter']);

/** A machine that sends what a sender was planned to send; nothing that was written of the sender is lost. */
function joined(machine: OldMachine, { name, address, ranges, pennant }: OldSource): OldMachine {
  const lacks = address !== '' && !addressesOf(machine).includes(address) && !OFF_NETWORK.has(machine.kind);
  const [first = { name: '', mac: '', addresses: [] }, ...others] = machine.interfaces;
  const note = name === machine.name ? [] : [`Was planned as the sender ${name}.`];
  return {
    ...machine,
    notes: [machine.notes, ...note].filter(Boolean).join('\n'),
    interfaces: lacks
      ? [{ ...first, addresses: [...first.addresses, planned(address)] }, ...others]
      : machine.interfaces,
    sends: {
      lines: [...(machine.sends?.lines ?? []), ...ranges],
      pennant: machine.sends?.pennant ?? pennant,
    },
  };
}

function joinSenders({ source = [], ...records }: LooseShow): LooseShow {
  const machines = new Map<string, OldMachine>();
  for (const machine of (records['machine'] ?? []) as readonly OldMachine[])
    // A history of version 6 comes through here too: what stands in this form already stays.
    machines.set(machine.id, { ...machine, sends: machine.sends ?? null });
  const became = new Map<string, string>();
  for (const one of source as readonly OldSource[]) {
    const all = [...machines.values()];
    const its =
      all.find(({ name }) => name === one.name) ??
      (one.address === '' ? undefined : all.find((machine) => addressesOf(machine).includes(one.address))) ??
      made(one);
    machines.set(its.id, joined(its, one));
    became.set(one.id, its.id);
  }
  const links = (records['link'] ?? []).map((one) => {
    if ('senderId' in one) return one;
    const { sourceId, machineId, ...link } = one;
    return { ...link, senderId: became.get(sourceId as string) ?? sourceId, visualiserId: machineId };
  });
  return { ...records, machine: [...machines.values()], link: links };
}

export const to6: Step = { to: 6, show: joinSenders };
