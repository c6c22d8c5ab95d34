/** The ship from above at one moment of a time line: each lamp by a mark for its state, not by colour alone. */
import { useMemo } from 'react';
import Svg, { Circle, Line, Path, Text as SvgText } from 'react-native-svg';
import { useShow } from '@/data/show';
import { useColour } from '@/ui';

const WIDTH = 100;
const EDGE = 3;

interface Props {
  /** Letter of each lamp, by its id */
  readonly codes: ReadonlyMap<string, string>;
  readonly width: number;
  readonly label: string;
}

function Mark({ x, y, code }: { x: number; y: number; code: string }) {
  const colour = useColour();
  switch (code) {
    case 'L':
      return <Circle cx={x} cy={y} r={0.8} fill={colour('fine')} />;
    case 'C':
      return <Path d={`M${x} ${y - 1.2}l1.1 2h-2.2z`} fill={colour('stray')} />;
    case 'D':
    case 'S':
      return (
        <>
          <Line x1={x - 1} y1={y - 1} x2={x + 1} y2={y + 1} stroke={colour('fault')} strokeWidth={0.5} />
          <Line x1={x - 1} y1={y + 1} x2={x + 1} y2={y - 1} stroke={colour('fault')} strokeWidth={0.5} />
        </>
      );
    case 'P':
      return (
        <SvgText x={x} y={y + 1.2} fontSize={3.4} fontWeight="600" textAnchor="middle" fill={colour('fault')}>
          ?
        </SvgText>
      );
    case 'F':
      return <Path d={`M${x - 1} ${y}a1 1 0 0 1 2 0z`} fill={colour('warn')} />;
    default:
      return <Circle cx={x} cy={y} r={0.9} fill="none" stroke={colour('warn')} strokeWidth={0.5} />;
  }
}

export function LampMap({ codes, width, label }: Props) {
  const { patch } = useShow();
  const { spots, height } = useMemo(() => {
    const lamps = patch.all().filter(({ lamp }) => codes.has(lamp.id));
    const [xs, ys] = [lamps.map(({ lamp }) => lamp.x), lamps.map(({ lamp }) => lamp.y)];
    const [left, right] = [Math.min(...xs), Math.max(...xs)];
    const [stern, bow] = [Math.min(...ys), Math.max(...ys)];
    // The long side of the ship runs along the page.
    const long = bow - stern >= right - left;
    const [most, least] = long ? [bow - stern, right - left] : [right - left, bow - stern];
    const scale = (WIDTH - 2 * EDGE) / Math.max(1, most);
    const place = ({ x, y }: { x: number; y: number }) =>
      long
        ? [(y - stern) * scale + EDGE, (x - left) * scale + EDGE]
        : [(x - left) * scale + EDGE, (bow - y) * scale + EDGE];
    return {
      height: Math.max(10, least * scale + 2 * EDGE),
      spots: lamps.map(({ lamp }) => ({ id: lamp.id, at: place(lamp) as [number, number] })),
    };
  }, [patch, codes]);
  if (spots.length === 0) return null;
  return (
    <Svg
      width={width}
      height={(width * height) / WIDTH}
      viewBox={`0 0 ${WIDTH} ${height}`}
      role="img"
      aria-label={label}
    >
      {spots.map(({ id, at: [x, y] }) => (
        <Mark key={id} x={x} y={y} code={codes.get(id)!} />
      ))}
    </Svg>
  );
}
