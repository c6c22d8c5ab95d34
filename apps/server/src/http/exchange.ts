/** Rigs handed from program to program, over HTTP. */
import type { Result } from '@taxiarch/core/base/result';
import type { Exchange } from '../exchange/exchange';
import { ProblemError } from '../problemError';
import type { Handlers } from './api';

type ExchangeHandlers = Pick<
  Handlers,
  'readExchange' | 'fetchRig' | 'cancelFetch' | 'commitRig' | 'moveStation' | 'askPatch' | 'givePatch' | 'selectThere'
>;

function valueOf<T>(result: Result<T>): T {
  if (result.ok) return result.value;
  throw new ProblemError(result.reason === 'taken' ? 'busy' : 'not-possible', result.why);
}

export const exchangeHandlers = (exchange: Exchange): ExchangeHandlers => ({
  readExchange: () => exchange.report(),
  fetchRig: async ({ body: { stationId, fileId } }) => ({ id: valueOf(await exchange.fetch(stationId, fileId)) }),
  cancelFetch: () => exchange.cancelFetch(),
  commitRig: async ({ body: { author, comment, forIds = [] } }) =>
    valueOf(await exchange.commit(author, comment, forIds)),
  moveStation: async ({ body: { to } }) => ({ url: valueOf(await exchange.move(to.trim())) }),
  askPatch: async ({ body: { peer } }) => ({ id: valueOf(await exchange.askPatch(peer)) }),
  givePatch: async ({ body: { peer } }) => ({ lamps: valueOf(await exchange.givePatch(peer)) }),
  selectThere: ({ body: { numbers } }) => ({ names: valueOf(exchange.select(numbers)) }),
});
