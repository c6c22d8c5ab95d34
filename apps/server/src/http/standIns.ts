/** The demo's stand-ins, passed on to whoever looks at their page, and practising on them. */
import type { Hand } from '@taxiarch/core/truth/fault';
import type { Bench } from '../practise/bench';
import type { Practising } from '../practise/practising';
import type { Handlers } from './api';

type StandInHandlers = Pick<
  Handlers,
  | 'readStandIns'
  | 'handleStandIn'
  | 'readPractice'
  | 'beginPractice'
  | 'nameFault'
  | 'giveHint'
  | 'lookedAt'
  | 'endPractice'
>;

export const standInHandlers = (bench: Bench, practising: Practising): StandInHandlers => ({
  readStandIns: bench.boxes,

  handleStandIn: async ({ body }) => {
    practising.refuseReset(body as Hand);
    const boxes = await bench.handle(body);
    await practising.handled(body as Hand);
    return boxes;
  },

  readPractice: () => practising.read(),
  beginPractice: ({ body }) => practising.begin(body),
  nameFault: ({ body: { about, cause } }) => practising.name(about, cause),
  giveHint: () => practising.hint(),
  lookedAt: ({ body: { screen } }) => practising.looked(screen),
  endPractice: () => practising.end(),
});
