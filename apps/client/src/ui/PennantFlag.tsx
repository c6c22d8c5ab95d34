/** A source's flag: a letter, a cut, a hatching; tinted last. */
import type { Pennant } from '@taxiarch/core/show/records';
import Svg, { Path, Text as SvgText } from 'react-native-svg';
import { PENNANT_INK, pennantShape } from './pennant';

export function PennantFlag({ pennant, size = 20 }: { pennant: Pennant; size?: number }) {
  const { outline, hatching, tint } = pennantShape(pennant);
  return (
    <Svg width={size * 1.5} height={size} viewBox="0 0 24 16" aria-label={`Pennant ${pennant.letter}`}>
      <Path d={outline} fill={tint} stroke={PENNANT_INK} strokeOpacity={0.5} strokeWidth={0.75} />
      {hatching !== '' && <Path d={hatching} fill={PENNANT_INK} opacity={0.75} />}
      <SvgText x={7} y={12.5} fontSize={13} fontWeight="600" textAnchor="middle" fill={PENNANT_INK}>
        {pennant.letter}
      </SvgText>
    </Svg>
  );
}
