/** How every chart looks. */
import { useColour } from './theme';

export function useChartConfig() {
  const colour = useColour();
  return {
    backgroundGradientFrom: colour('ground'),
    backgroundGradientTo: colour('ground'),
    decimalPlaces: 0,
    color: () => colour('press'),
    labelColor: () => colour('soft'),
    propsForLabels: { fontFamily: 'Fira Sans', fontSize: 13 },
    strokeWidth: 2,
  };
}
