/** The ledger as a picture: laid out from left to right on a wide screen, from top to bottom on a phone. */
import dagre from '@dagrejs/dagre';
import { useRouter, type Href } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import {
  flowGraph,
  pennantOf,
  type FlowEdge,
  type FlowGraph,
  type FlowNode,
  type LedgerRow,
} from '@taxiarch/core/flow';
import type { Source } from '@taxiarch/core/show';
import { Text, useColour, useWide, type Tone } from '@/ui';
import { PENNANT_INK, pennantShape } from '@/ui/pennant';

const NODE = { width: 168, height: 46 };
/** Ways drawn one below the other on a phone; for more it asks which are wanted. */
const MOST_ON_PHONE = 12;

interface Placed {
  readonly width: number;
  readonly height: number;
  readonly at: ReadonlyMap<string, { x: number; y: number }>;
  readonly ways: ReadonlyMap<string, string>;
}

const wayKey = ({ from, to }: Pick<FlowEdge, 'from' | 'to'>) => `${from} ${to}`;

function place({ nodes, edges }: Pick<FlowGraph, 'nodes' | 'edges'>, across: boolean): Placed {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({
    rankdir: across ? 'LR' : 'TB',
    nodesep: across ? 10 : 14,
    ranksep: across ? 220 : 46,
    marginx: 4,
    marginy: 4,
  });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id } of nodes) graph.setNode(id, { ...NODE });
  for (const { from, to } of edges) graph.setEdge(from, to);
  dagre.layout(graph);
  const { width = 0, height = 0 } = graph.graph();
  return {
    width,
    height,
    at: new Map(nodes.map(({ id }) => [id, graph.node(id)])),
    ways: new Map(
      edges.map((edge) => {
        const a = graph.node(edge.from);
        const b = graph.node(edge.to);
        const [x1, y1, x2, y2] = across
          ? [a.x + NODE.width / 2, a.y, b.x - NODE.width / 2, b.y]
          : [a.x, a.y + NODE.height / 2, b.x, b.y - NODE.height / 2];
        const way = across
          ? `M${x1} ${y1}C${(x1 + x2) / 2} ${y1} ${(x1 + x2) / 2} ${y2} ${x2} ${y2}`
          : `M${x1} ${y1}C${x1} ${(y1 + y2) / 2} ${x2} ${(y1 + y2) / 2} ${x2} ${y2}`;
        return [wayKey(edge), way];
      }),
    ),
  };
}

const STATE_TONES: Readonly<Record<string, Tone>> = {
  steady: 'fine',
  ragged: 'warn',
  contested: 'fault',
  silent: 'soft',
  stray: 'stray',
};

/** Drawn motion where something flows; none where the device asks for less of it. */
const FLOWING = `
@keyframes flowing { to { stroke-dashoffset: -24; } }
.flowing { animation: flowing 1.2s linear infinite; }
@media (prefers-reduced-motion: reduce) { .flowing { animation: none; } }
`;

export function FlowPicture({ rows, sources }: { rows: readonly LedgerRow[]; sources: readonly Source[] }) {
  const wide = useWide();
  if (wide) return <Drawing graph={flowGraph(rows)} across sources={sources} />;
  // A phone shows each universe's own way from top to bottom, one below the other.
  return (
    <View className="gap-6">
      {rows.slice(0, MOST_ON_PHONE).map((row) => (
        <Drawing key={row.universe.id} graph={flowGraph([row])} across={false} sources={sources} />
      ))}
      {rows.length > MOST_ON_PHONE && (
        <Text>
          {rows.length - MOST_ON_PHONE} more universes. Say above which are wanted: a universe, a lamp, a machine or a
          sender.
        </Text>
      )}
    </View>
  );
}

function Drawing({ graph, across, sources }: { graph: FlowGraph; across: boolean; sources: readonly Source[] }) {
  const router = useRouter();
  const colour = useColour();
  // The layout is made anew only when something is added or taken away, not when something begins to flow.
  const shape = `${across} ${graph.nodes.map(({ id }) => id).join()} ${graph.edges.map(wayKey).join()}`;
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the shape says all that matters of the graph
  const placed = useMemo(() => place(graph, across), [shape]);
  return (
    <View className="-mx-4">
      <div style={{ overflowX: 'auto', padding: '0 16px' }} role="group" aria-label="Picture of the flow">
        <svg width={placed.width} height={placed.height} style={{ display: 'block', margin: '0 auto' }}>
          <style>{FLOWING}</style>
          {graph.edges.map((edge) => (
            <path
              key={wayKey(edge)}
              d={placed.ways.get(wayKey(edge))}
              fill="none"
              stroke={colour(edge.live ? 'fine' : 'line')}
              strokeWidth={edge.live ? 2.2 : 1.5}
              strokeDasharray={edge.live ? '8 4' : '2 4'}
              className={edge.live ? 'flowing' : undefined}
            />
          ))}
          {graph.edges.map(
            (edge) =>
              edge.label !== '' && (
                <PortLabel
                  key={wayKey(edge)}
                  edge={edge}
                  placed={placed}
                  ink={colour('text')}
                  ground={colour('ground')}
                />
              ),
          )}
          {graph.nodes.map((node) => (
            <FlowBox
              key={node.id}
              node={node}
              at={placed.at.get(node.id)!}
              sources={sources}
              colour={colour}
              onOpen={() => router.navigate(node.href as Href)}
            />
          ))}
        </svg>
      </div>
    </View>
  );
}

/** Which ports a line enters stands in its middle. */
function PortLabel({ edge, placed, ink, ground }: { edge: FlowEdge; placed: Placed; ink: string; ground: string }) {
  const to = placed.at.get(edge.to)!;
  const from = placed.at.get(edge.from)!;
  return (
    <text
      x={(from.x + to.x) / 2}
      y={(from.y + to.y) / 2 + 4}
      fill={ink}
      stroke={ground}
      strokeWidth={5}
      paintOrder="stroke"
      fontSize={13}
      fontFamily="Fira Sans"
      textAnchor="middle"
    >
      {edge.label.includes(',') ? `ports ${edge.label}` : `port ${edge.label}`}
    </text>
  );
}

interface BoxProps {
  node: FlowNode;
  at: { x: number; y: number };
  sources: readonly Source[];
  colour: (tone: Tone) => string;
  onOpen: () => void;
}

function FlowBox({ node, at, sources, colour, onOpen }: BoxProps) {
  const { kind, label, below, state, sender } = node;
  const flag = sender && pennantOf(sender, sources);
  const pennant = flag && pennantShape(flag);
  const indent = pennant ? 40 : 10;
  return (
    <g
      role="link"
      tabIndex={0}
      aria-label={[label, below, state].filter(Boolean).join(', ')}
      transform={`translate(${at.x - NODE.width / 2} ${at.y - NODE.height / 2})`}
      style={{ cursor: 'pointer' }}
      onClick={onOpen}
      onKeyDown={(event) => event.key === 'Enter' && onOpen()}
    >
      <rect
        width={NODE.width}
        height={NODE.height}
        rx={6}
        fill={colour(kind === 'universe' ? 'raised' : 'surface')}
        stroke={colour('line')}
        strokeDasharray={kind === 'route' ? '6 3' : undefined}
      />
      {pennant && (
        <g transform="translate(10 15)">
          <path d={pennant.outline} fill={pennant.tint} />
          {pennant.hatching && <path d={pennant.hatching} fill={PENNANT_INK} />}
          <text
            x={7}
            y={12.5}
            fontSize={13}
            fontWeight={600}
            fontFamily="Fira Sans"
            fill={PENNANT_INK}
            textAnchor="middle"
          >
            {flag!.letter}
          </text>
        </g>
      )}
      <text x={indent} y={below || state ? 20 : 28} fontSize={14} fontFamily="Fira Sans" fill={colour('text')}>
        {fitted(label, pennant ? 16 : 20)}
      </text>
      <text x={indent} y={37} fontSize={13} fontFamily="Fira Sans" fill={colour('soft')}>
        {below}
        {state && (
          <tspan fill={colour(STATE_TONES[state] ?? 'soft')} fontWeight={600}>
            {`  ${state}`}
          </tspan>
        )}
      </text>
    </g>
  );
}

const fitted = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
