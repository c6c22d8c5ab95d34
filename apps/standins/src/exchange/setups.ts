/** The programs of the demo that exchange rigs, each with a file of its own. */
import type { ExchangeSetup } from './exchangeBox';

export const BRIDGE_EXCHANGE: ExchangeSetup = {
  name: 'Bridge desk',
  address: '127.0.0.21',
  stationId: '7ff00000-0000-4000-8000-b41d6e0000e1',
  provider: 'Baleen Helm',
  type: 'LightingConsole',
  otherwise: { number: [112, 800], address: [105, 1], mode: 101 },
};

export const CROW_EXCHANGE: ExchangeSetup = {
  name: 'Crow’s nest',
  address: '127.0.0.24',
  stationId: '7ff00000-0000-4000-8000-c401e50000e2',
  provider: 'Tern Lookout',
  type: 'Visualizer',
  otherwise: { number: [110, 800], address: [107, 2], mode: 102 },
};
