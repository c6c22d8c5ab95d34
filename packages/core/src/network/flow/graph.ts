/** The ledger as a graph: senders at one end, machines with ports at the other, universes and routes between. */
import { formatUniverses, formatWire, protocolName } from '../../base/address';
import type { LedgerRow } from './ledger';
import type { StreamState } from '../../signal/stream';

export interface FlowNode {
  readonly id: string;
  readonly kind: 'sender' | 'universe' | 'route' | 'machine';
  readonly label: string;
  readonly below: string;
  /** Of universes */
  readonly state?: StreamState | undefined;
  /** The universes that stand here together; empty for what is none */
  readonly universes: readonly number[];
  /** Of a sender: its name and address, for its flag */
  readonly sender?: { readonly name: string; readonly address: string; readonly own: boolean };
  readonly href: `/${'listen' | 'wire'}/${string}` | `/flow/${'senders' | 'routes'}/${string}`;
}

export interface FlowEdge {
  readonly from: string;
  readonly to: string;
  /** Something flows here now */
  readonly live: boolean;
  /** Ports by which it leaves, or empty */
  readonly label: string;
}

export interface FlowGraph {
  readonly nodes: readonly FlowNode[];
  readonly edges: readonly FlowEdge[];
}

/** What two universes have alike if they travel one and the same way and stand alike. */
const wayOf = ({ wire, report, senders, madeBy, takenBy, outlets }: LedgerRow): string =>
  JSON.stringify([
    wire.protocol,
    report?.state,
    senders.map(({ name, address, heard }) => [name, address, heard]),
    [...madeBy, ...takenBy].map(({ route, running }) => [route.id, running]),
    // How it leaves, whichever port it is
    [...new Set(outlets.map(({ machineId, heard }) => `${machineId} ${heard}`))].sort(),
  ]);

/** Rows that travel one and the same way and stand alike, together; in the order of their first. */
export function alike(rows: readonly LedgerRow[]): LedgerRow[][] {
  const groups = new Map<string, LedgerRow[]>();
  for (const row of rows) {
    const way = wayOf(row);
    const there = groups.get(way);
    if (there) there.push(row);
    else groups.set(way, [row]);
  }
  return [...groups.values()];
}

/** What stands for one universe, or for several that travel together. */
function universeNode(rows: readonly LedgerRow[]): FlowNode {
  const { universe, wire, report } = rows[0]!;
  const universes = rows.map((row) => row.universe.number);
  const one = rows.length === 1;
  return {
    id: `u${universe.number}`,
    kind: 'universe',
    label: one ? `${universe.number} ${universe.name}`.trim() : formatUniverses(universes),
    below: one ? formatWire(wire) : `${rows.length} by ${protocolName(wire.protocol)}`,
    state: report?.state,
    universes,
    href: `/listen/u${universe.number}`,
  };
}

/**
 * Nodes and edges of some rows, those of one group as one node; a sender or machine that several
 * share stands once.
 */
export function flowGraph(groups: readonly (readonly LedgerRow[])[]): FlowGraph {
  const nodes = new Map<string, FlowNode>();
  const edges = new Map<string, Omit<FlowEdge, 'label'> & { readonly ports: Set<number> }>();
  const node = (one: FlowNode) => {
    if (!nodes.has(one.id)) nodes.set(one.id, one);
    return one.id;
  };
  const edge = (from: string, to: string, live: boolean, port: number | null = null) => {
    const key = `${from} ${to}`;
    const there = edges.get(key);
    const ports = there?.ports ?? new Set<number>();
    if (port !== null) ports.add(port);
    edges.set(key, { from, to, live: live || (there?.live ?? false), ports });
  };
  const byWire = new Map(
    groups.flatMap((rows) => rows.map(({ wire }) => [formatWire(wire), `u${rows[0]!.universe.number}`] as const)),
  );
  for (const rows of groups) {
    const here = node(universeNode(rows));
    for (const { universe, senders, outlets, madeBy } of rows) {
      for (const { name, address, own, heard, sender } of senders)
        edge(
          node({
            id: `s ${sender?.id ?? `${name} ${address}`}`,
            kind: 'sender',
            label: name,
            below: address,
            universes: [],
            sender: { name, address, own },
            href: sender ? `/flow/senders/${sender.id}` : `/listen/u${universe.number}`,
          }),
          here,
          heard,
        );
      for (const { route, running } of madeBy) {
        const through = node({
          id: `r ${route.id}`,
          kind: 'route',
          label: route.name,
          below: running ? 'route, running' : 'route, off',
          universes: [],
          href: `/flow/routes/${route.id}`,
        });
        edge(through, here, running);
        for (const { wire: from } of route.inputs) {
          const sender = byWire.get(formatWire(from));
          if (sender !== undefined) edge(sender, through, running);
        }
      }
      for (const { machine, machineId, port, heard } of outlets)
        edge(
          here,
          node({
            id: `m ${machineId}`,
            kind: 'machine',
            label: machine,
            below: '',
            universes: [],
            href: `/wire/${machineId}`,
          }),
          heard && senders.some((one) => one.heard),
          port,
        );
    }
  }
  return {
    nodes: [...nodes.values()],
    edges: [...edges.values()].map(({ ports, ...rest }) => ({ ...rest, label: formatUniverses([...ports]) })),
  };
}
