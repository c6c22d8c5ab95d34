/** The ledger as a picture: laid out from left to right on a wide screen, from top to bottom on a phone. */
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatUniverses } from '@taxiarch/core/base/address';
import {
  alike,
  type FlowEdge,
  flowGraph,
  type FlowGraph,
  type FlowNode,
  type LedgerRow,
  pennantOf,
  type Sender,
} from '@taxiarch/core/network/flow';
import { Check, Text, useColour, useWide, type Tone } from '@/ui';
import { PENNANT_INK, pennantShape } from '@/ui/pennant';
import { NODE, layOut, wayKey, type Placed } from './flowLayout';

/** Ways drawn one below the other on a phone; for more it asks which are wanted. */
const MOST_ON_PHONE = 24;

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

interface Props {
  readonly rows: readonly LedgerRow[];
  readonly senders: readonly Sender[];
  /** Shows some universes only, written as people write them. */
  readonly onOnly: (universes: string) => void;
}

export function FlowPicture({ rows, senders, onOnly }: Props) {
  const wide = useWide();
  const [together, setTogether] = useState(true);
  const groups = together ? alike(rows) : rows.map((row) => [row]);
  const open = (universes: readonly number[]) => {
    setTogether(false);
    onOnly(formatUniverses(universes));
  };
  return (
    <View className="gap-4">
      <Check label="Universes that go one way together" on={together} onChange={setTogether} />
      {wide ? (
        <Drawing graph={flowGraph(groups)} across senders={senders} onOpen={open} />
      ) : (
        // A phone shows each way from top to bottom, one below the other.
        groups
          .slice(0, MOST_ON_PHONE)
          .map((group) => (
            <Drawing
              key={group[0]!.universe.id}
              graph={flowGraph([group])}
              across={false}
              senders={senders}
              onOpen={open}
            />
          ))
      )}
      {!wide && groups.length > MOST_ON_PHONE && (
        <Text>
          {groups.length - MOST_ON_PHONE} more. Say above which are wanted: universes, a lamp, a machine or a sender.
        </Text>
      )}
    </View>
  );
}

interface DrawingProps {
  graph: FlowGraph;
  across: boolean;
  senders: readonly Sender[];
  /** Several universes that stand as one are to be seen each by itself. */
  onOpen: (universes: readonly number[]) => void;
}

function Drawing({ graph, across, senders, onOpen }: DrawingProps) {
  const router = useRouter();
  const colour = useColour();
  // The layout is made anew only when something is added, taken away or named otherwise, not when something begins to flow.
  const shape = JSON.stringify([
    across,
    graph.nodes.map(({ id }) => id),
    graph.edges.map((edge) => [wayKey(edge), edge.label]),
  ]);
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the shape says all that matters of the graph
  const placed = useMemo(() => layOut(graph, across), [shape]);
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
              senders={senders}
              colour={colour}
              onOpen={() => (node.universes.length > 1 ? onOpen(node.universes) : router.navigate(node.href))}
            />
          ))}
        </svg>
      </div>
    </View>
  );
}

/** Which ports a line enters stands on it. */
function PortLabel({ edge, placed, ink, ground }: { edge: FlowEdge; placed: Placed; ink: string; ground: string }) {
  const { x, y } = placed.labels.get(wayKey(edge))!;
  return (
    <text
      x={x}
      y={y + 4}
      fill={ink}
      stroke={ground}
      strokeWidth={5}
      paintOrder="stroke"
      fontSize={13}
      fontFamily="Fira Sans"
      textAnchor="middle"
    >
      {/^\d+$/.test(edge.label) ? `port ${edge.label}` : `ports ${edge.label}`}
    </text>
  );
}

interface BoxProps {
  node: FlowNode;
  at: { x: number; y: number };
  senders: readonly Sender[];
  colour: (tone: Tone) => string;
  onOpen: () => void;
}

function FlowBox({ node, at, senders, colour, onOpen }: BoxProps) {
  const { kind, label, below, state, sender } = node;
  const flag = sender && pennantOf(sender, senders);
  const pennant = flag && pennantShape(flag);
  const indent = pennant ? 40 : 10;
  return (
    <g
      role={node.universes.length > 1 ? 'button' : 'link'}
      tabIndex={0}
      transform={`translate(${at.x - NODE.width / 2} ${at.y - NODE.height / 2})`}
      style={{ cursor: 'pointer' }}
      onClick={onOpen}
      onKeyDown={(event) => event.key === 'Enter' && onOpen()}
    >
      <title>{[label, below, state].filter(Boolean).join(', ')}</title>
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
