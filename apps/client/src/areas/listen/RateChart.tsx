/** Packets a second of each stream, over the last minute. */
import { useEffect, useState } from 'react';
import { View, useWindowDimensions } from 'react-native';
import type { StreamReport } from '@taxiarch/core/signal/stream';
import { LineChart, Text, useChartConfig, useWide } from '@/ui';

const SPAN = 60;
const TICK_MS = 1000;

/** The rates of the last minute, one a second, from when the chart is first shown. */
function useRates(streams: readonly StreamReport[]): readonly number[] {
  const [rates, setRates] = useState<readonly number[]>([]);
  const total = streams.reduce((sum, stream) => sum + (stream.lost ? 0 : stream.rate1), 0);
  useEffect(() => {
    const timer = setInterval(() => setRates((before) => [...before, total].slice(-SPAN)), TICK_MS);
    return () => clearInterval(timer);
  }, [total]);
  return rates;
}

export function RateChart({ streams }: { streams: readonly StreamReport[] }) {
  const config = useChartConfig();
  const wide = useWide();
  const window = useWindowDimensions();
  const rates = useRates(streams);
  if (rates.length < 2) return <Text kind="small">The rate is drawn here second by second.</Text>;
  return (
    <View accessibilityLabel={`Packets a second, now ${rates[rates.length - 1]}`}>
      <LineChart
        data={{
          labels: [],
          datasets: [{ data: [...rates] }, { data: [0, 50], withDots: false, color: () => 'transparent' }],
        }}
        width={wide ? 480 : window.width - 32}
        height={120}
        withDots={false}
        withInnerLines={false}
        withShadow={false}
        fromZero
        segments={2}
        chartConfig={config}
        style={{ paddingRight: 40, marginLeft: -8 }}
      />
    </View>
  );
}
