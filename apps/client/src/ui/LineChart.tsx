/** The library's line chart, which comes when the first chart is shown. */
import type { ComponentProps } from 'react';
import type { LineChart as Chart } from 'react-native-chart-kit';
import { lazyPart } from './lazyPart';

export const LineChart = lazyPart<ComponentProps<typeof Chart>>(
  () => import('react-native-chart-kit').then((kit) => kit.LineChart),
  null,
);
