/** Where each part of the flow's picture stands: laid out by dagre, ways drawn as curves between. */
import dagre from '@dagrejs/dagre';
import type { FlowEdge, FlowGraph } from '@taxiarch/core/network/flow';

/** Size of a node, pixels */
export const NODE = { width: 168, height: 44 };
/** Room that the name of a port takes on its way */
const LABEL = { width: 64, height: 16 };
/** Where on a way its label may stand, in the order of preference; 0 is where it begins */
const LABEL_AT = [0.5, 0.35, 0.65, 0.25, 0.75];

export interface At {
  readonly x: number;
  readonly y: number;
}

export interface Placed {
  readonly width: number;
  readonly height: number;
  /** Middle of each node, by its id */
  readonly at: ReadonlyMap<string, At>;
  /** Path of each edge, by its key */
  readonly ways: ReadonlyMap<string, string>;
  /** Middle of each edge's label, by its key; none covers another while there is room */
  readonly labels: ReadonlyMap<string, At>;
}

export const wayKey = ({ from, to }: Pick<FlowEdge, 'from' | 'to'>) => `${from} ${to}`;

/** Begin, two points that bend it, end. */
type Curve = readonly [At, At, At, At];

function curveOf(a: At, b: At, across: boolean): Curve {
  const [begin, end] = across
    ? [
        { x: a.x + NODE.width / 2, y: a.y },
        { x: b.x - NODE.width / 2, y: b.y },
      ]
    : [
        { x: a.x, y: a.y + NODE.height / 2 },
        { x: b.x, y: b.y - NODE.height / 2 },
      ];
  const [middleX, middleY] = [(begin.x + end.x) / 2, (begin.y + end.y) / 2];
  return across
    ? [begin, { x: middleX, y: begin.y }, { x: middleX, y: end.y }, end]
    : [begin, { x: begin.x, y: middleY }, { x: end.x, y: middleY }, end];
}

const pathOf = ([a, b, c, d]: Curve): string => `M${a.x} ${a.y}C${b.x} ${b.y} ${c.x} ${c.y} ${d.x} ${d.y}`;

/** A point of a cubic curve, `t` from 0 to 1. */
function pointOf([a, b, c, d]: Curve, t: number): At {
  const u = 1 - t;
  const [p, q, r, s] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: a.x * p + b.x * q + c.x * r + d.x * s, y: a.y * p + b.y * q + c.y * r + d.y * s };
}

export function layOut({ nodes, edges }: Pick<FlowGraph, 'nodes' | 'edges'>, across: boolean): Placed {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({
    rankdir: across ? 'LR' : 'TB',
    nodesep: across ? 6 : 14,
    ranksep: across ? 220 : 46,
    marginx: 4,
    marginy: 4,
  });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id } of nodes) graph.setNode(id, { ...NODE });
  for (const { from, to } of edges) graph.setEdge(from, to);
  dagre.layout(graph);
  // Of nothing the library says that it is infinitely small.
  const { width = 0, height = 0 } = nodes.length === 0 ? {} : graph.graph();
  const curves = edges.map((edge) => ({ edge, curve: curveOf(graph.node(edge.from), graph.node(edge.to), across) }));
  const labels = new Map<string, At>();
  const covers = (one: At) =>
    [...labels.values()].some(
      (other) => Math.abs(other.x - one.x) < LABEL.width && Math.abs(other.y - one.y) < LABEL.height,
    );
  for (const { edge, curve } of curves) {
    if (edge.label === '') continue;
    const places = LABEL_AT.map((t) => pointOf(curve, t));
    labels.set(wayKey(edge), places.find((one) => !covers(one)) ?? places[0]!);
  }
  return {
    width,
    height,
    at: new Map(nodes.map(({ id }) => [id, graph.node(id)])),
    ways: new Map(curves.map(({ edge, curve }) => [wayKey(edge), pathOf(curve)])),
    labels,
  };
}
