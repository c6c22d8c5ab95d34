/** Entry of the engine's thread. */
import { parentPort, workerData } from 'node:worker_threads';
import { keepBeating } from '../bridge/beat';
import { goFirst } from '../bridge/goFirst';
import type { EngineSetup, FromEngine, ToEngine } from '../bridge/engineMessages';
import type { ThreadData, ThreadSays } from '../bridge/supervisor';
import { Engine } from './engine';
import { carryOut } from './orders';

goFirst(-18);
const port = parentPort!;
const setup = workerData as EngineSetup & ThreadData;
keepBeating(setup.beat);
const engine = new Engine(setup, (message: FromEngine) => port.postMessage(message));

port.on('message', (order: ToEngine) => {
  carryOut(engine, order);
  if (order.type === 'stop') setTimeout(() => port.close(), 100);
});

engine.start(setup.again).then(
  () => port.postMessage({ type: 'ready' } satisfies ThreadSays),
  (error: Error) => port.postMessage({ type: 'failed', why: error.message } satisfies ThreadSays),
);
