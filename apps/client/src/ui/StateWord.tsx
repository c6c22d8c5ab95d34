/** A state: always word, mark and colour together. */
import { View } from 'react-native';
import Svg, { Circle, Line, Path, Text as SvgText } from 'react-native-svg';
import { Text } from './Text';
import { useColour, type Tone } from './theme';

type Mark = 'tick' | 'ring' | 'diamond' | 'dash' | 'question' | 'bars';

const STATES = {
  steady: ['tick', 'fine'],
  matched: ['tick', 'fine'],
  fine: ['tick', 'fine'],
  done: ['tick', 'fine'],
  refused: ['diamond', 'fault'],
  'no answer': ['question', 'stray'],
  'not supported': ['ring', 'warn'],
  unseen: ['dash', 'soft'],
  planned: ['dash', 'soft'],
  'as planned': ['tick', 'fine'],
  open: ['ring', 'warn'],
  ragged: ['ring', 'warn'],
  'look at': ['ring', 'warn'],
  drifted: ['ring', 'warn'],
  differs: ['ring', 'warn'],
  'cannot answer': ['dash', 'soft'],
  'cannot be asked': ['dash', 'soft'],
  'not known': ['question', 'soft'],
  contested: ['diamond', 'fault'],
  'must fix': ['diamond', 'fault'],
  missing: ['dash', 'soft'],
  silent: ['dash', 'soft'],
  stray: ['question', 'stray'],
  stranger: ['question', 'stray'],
  proved: ['tick', 'fine'],
  'proved before the change': ['ring', 'warn'],
  failed: ['diamond', 'fault'],
  disputed: ['question', 'warn'],
  skipped: ['dash', 'soft'],
  untried: ['dash', 'soft'],
  hot: ['bars', 'hot'],
} as const satisfies Record<string, readonly [Mark, Tone]>;

export type StateName = keyof typeof STATES;
export const STATE_NAMES = Object.keys(STATES) as StateName[];

function MarkShape({ mark, ink }: { mark: Mark; ink: string }) {
  switch (mark) {
    case 'tick':
      return <Path d="M3 8.5l3.5 3.5L13 4.5" stroke={ink} strokeWidth={2.4} fill="none" />;
    case 'ring':
      return <Circle cx={8} cy={8} r={5} stroke={ink} strokeWidth={2.4} fill="none" />;
    case 'diamond':
      return <Path d="M8 1.5L14.5 8 8 14.5 1.5 8z" fill={ink} />;
    case 'dash':
      return <Path d="M2 6h12v4H2z" stroke={ink} strokeWidth={1.6} fill="none" />;
    case 'question':
      return (
        <SvgText x={8} y={14} fontSize={16} fontWeight="600" textAnchor="middle" fill={ink}>
          ?
        </SvgText>
      );
    case 'bars':
      return (
        <>
          <Line x1={2} y1={14} x2={8} y2={2} stroke={ink} strokeWidth={2.6} />
          <Line x1={8} y1={14} x2={14} y2={2} stroke={ink} strokeWidth={2.6} />
        </>
      );
  }
}

export function StateWord({ state }: { state: StateName }) {
  const colour = useColour();
  const [mark, tone] = STATES[state];
  return (
    <View className="flex-row items-center gap-1">
      <Svg width={16} height={16} viewBox="0 0 16 16">
        <MarkShape mark={mark} ink={colour(tone)} />
      </Svg>
      <Text kind="strong" tone={tone}>
        {state}
      </Text>
    </View>
  );
}
