/** Somebody who looks at one universe by the feed. */
import { WebSocket } from 'ws';

export interface Watcher {
  /** Frames of levels that came so far */
  readonly frames: () => number;
  readonly close: () => void;
}

/** Watches the universe of a wire key; `base` is the server's address. */
export async function watchFrames(base: string, key: number): Promise<Watcher> {
  let frames = 0;
  const feed = new WebSocket(`${base.replace('http', 'ws')}/feed?client=watching`);
  feed.on('message', (_, binary) => (frames += binary ? 1 : 0));
  await new Promise((open, failed) => feed.once('open', open).once('error', failed));
  feed.send(JSON.stringify({ type: 'watch', keys: [key] }));
  return { frames: () => frames, close: () => feed.close() };
}
