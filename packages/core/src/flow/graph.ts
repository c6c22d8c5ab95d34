/** The ledger as a graph: senders at one end, machines with ports at the other, universes and routes between. */
import { formatWire } from '../address';
import type { LedgerRow } from './ledger';
import type { StreamState } from './index';

export interface FlowNode {
  readonly id: string;
  readonly kind: 'sender' | 'universe' | 'route' | 'machine';
  readonly label: string;
  readonly below: string;
  /** Of a universe */
  readonly state?: StreamState | undefined;
  /** Of a sender: its name and address, for its flag */
  readonly sender?: { readonly name: string; readonly address: string; readonly own: boolean };
  readonly href: string;
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

/** Nodes and edges of some rows; a sender or machine that several rows share stands once. */
export function flowGraph(rows: readonly LedgerRow[]): FlowGraph {
  const nodes = new Map<string, FlowNode>();
  const edges = new Map<string, FlowEdge & { labels: Set<string> }>();
  const node = (one: FlowNode) => {
    if (!nodes.has(one.id)) nodes.set(one.id, one);
    return one.id;
  };
  const edge = (from: string, to: string, live: boolean, label = '') => {
    const key = `${from} ${to}`;
    const there = edges.get(key);
    const labels = there?.labels ?? new Set<string>();
    if (label) labels.add(label);
    edges.set(key, { from, to, live: live || (there?.live ?? false), labels, label: [...labels].join(', ') });
  };
  const byWire = new Map(rows.map((row) => [formatWire(row.wire), `u${row.universe.number}`]));
  for (const row of rows) {
    const { universe, wire, report, senders, outlets, madeBy } = row;
    const here = node({
      id: `u${universe.number}`,
      kind: 'universe',
      label: `${universe.number} ${universe.name}`.trim(),
      below: formatWire(wire),
      state: report?.state,
      href: `/listen/u${universe.number}`,
    });
    for (const { name, address, own, heard, source } of senders)
      edge(
        node({
          id: `s ${source?.id ?? `${name} ${address}`}`,
          kind: 'sender',
          label: name,
          below: address,
          sender: { name, address, own },
          href: source ? `/flow/senders/${source.id}` : `/listen/u${universe.number}`,
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
        href: `/flow/routes/${route.id}`,
      });
      edge(through, here, running);
      for (const { wire: from } of route.inputs) {
        const source = byWire.get(formatWire(from));
        if (source !== undefined) edge(source, through, running);
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
          href: `/wire/${machineId}`,
        }),
        heard && senders.some((one) => one.heard),
        port === null ? '' : String(port),
      );
  }
  return {
    nodes: [...nodes.values()],
    edges: [...edges.values()].map(({ labels: _, ...rest }) => rest),
  };
}
