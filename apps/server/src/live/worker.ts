/** Entry of the engine's thread. */
import { parentPort, workerData } from 'node:worker_threads';
import { Engine } from './engine';
import { goFirst } from './goFirst';
import type { EngineSetup, FromEngine, ToEngine } from './messages';

goFirst(-10);
const port = parentPort!;
const engine = new Engine(
  workerData as EngineSetup,
  (message: FromEngine) => port.postMessage(message),
  new URL('./ear.mjs', import.meta.url),
);

port.on('message', (message: ToEngine) => {
  engine.handle(message);
  if (message.type === 'stop') setTimeout(() => port.close(), 100);
});

engine.start().then(
  () => port.postMessage({ type: 'ready' } satisfies FromEngine),
  (error: Error) => port.postMessage({ type: 'failed', why: error.message } satisfies FromEngine),
);
