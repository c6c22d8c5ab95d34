/** Entry of the engine's thread. */
import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { Engine } from './engine';
import type { EngineSetup, FromEngine, ToEngine } from './messages';

/** Packets wait in the system's buffer for some forty milliseconds only; this thread should not be the one to wait. */
function goFirst(): void {
  try {
    // On Linux this is the thread's own priority.
    if (process.platform === 'linux') setPriority(0, -15);
  } catch {
    // Only administrators may; without it a busy computer may cost packets.
  }
}

goFirst();
const port = parentPort!;
const engine = new Engine(workerData as EngineSetup, (message: FromEngine) => port.postMessage(message));

port.on('message', (message: ToEngine) => {
  engine.handle(message);
  if (message.type === 'stop') setTimeout(() => port.close(), 100);
});

engine.start().then(
  () => port.postMessage({ type: 'ready' } satisfies FromEngine),
  (error: Error) => port.postMessage({ type: 'failed', why: error.message } satisfies FromEngine),
);
