/**
 * How the parts of the client are fetched, each with the first screen that needs it. A part that does not come is
 * asked for again until it does: a phone changes its network, a server is begun anew, and the screen that was on its
 * way is there afterwards.
 */
import { Followed, useFollowed } from './emitter';

/** A part that has not come in this time is asked for once more, ms. */
const PATIENCE_MS = 10_000;
/** From one refusal to the next question, ms. */
const PAUSE_MS = 1000;
/** From here on it is said that something is on its way, ms. */
const SAID_AFTER_MS = 3000;

type Fetch = (url: string) => Promise<void>;

/** True while a part has been waited for so long that it is said. */
export const late = new Followed(false);
export const useLate = () => useFollowed(late);

const after = (ms: number) => new Promise<void>((go) => setTimeout(go, ms));

/** Fetches a file into the browser's store, to its last byte; refused when the browser cannot have it. */
export const fetchFile: Fetch = async (url) => {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(`${url} did not come.`);
  await answer.arrayBuffer();
};

/** True when the server answers and has no such part any more: it is another version by now. */
const isGone = (url: string): Promise<boolean> =>
  fetch(url, { method: 'HEAD' }).then(
    ({ status }) => status === 404,
    () => false,
  );

async function untilThere(url: string, fetchOnce: Fetch): Promise<void> {
  for (;;) {
    const came = fetchOnce(url).then(
      () => 'there' as const,
      () => 'refused' as const,
    );
    const how = await Promise.race([came, after(PATIENCE_MS)]);
    if (how === 'there') return;
    if (how === 'refused') {
      if (await isGone(url)) throw new Error('The server has another version of this page by now.');
      await after(PAUSE_MS);
    }
  }
}

/** Loads each part once, and until it is there; `fetchOnce` asks for it one time. */
export function loader(fetchOnce: Fetch): Fetch {
  const asked = new Map<string, Promise<void>>();
  let waiting = 0;
  const load = async (url: string) => {
    let counted = false;
    const clock = setTimeout(() => {
      counted = true;
      waiting += 1;
      late.set(true);
    }, SAID_AFTER_MS);
    try {
      await untilThere(url, fetchOnce);
    } finally {
      clearTimeout(clock);
      if (counted) waiting -= 1;
      late.set(waiting > 0);
    }
  };
  return (url) => {
    const known = asked.get(url);
    if (known) return known;
    const part = load(url);
    asked.set(url, part);
    part.catch(() => asked.delete(url));
    return part;
  };
}

/** What the built page says of its parts. */
export interface Built {
  /** Files of each part, by its name: its own first, then those that it shares with others. */
  readonly needed: Readonly<Record<string, readonly string[]>>;
  /** Runs a part of which all files are there. */
  take(url: string): Promise<unknown>;
}

/** Fetches all files of a part at once, each until it is there, and runs it. */
export function partLoader({ needed, take }: Built, fetchOnce: Fetch = fetchFile): (name: string) => Promise<unknown> {
  const load = loader(fetchOnce);
  return async (name) => {
    const files = needed[name] ?? [];
    await Promise.all(files.map(load));
    return take(files[0]!);
  };
}

/** A page that was built calls this for each of its parts (scripts/client.ts). */
const page = globalThis as { builtParts?: Built; loadPart?: (name: string) => Promise<unknown> };
if (page.builtParts) page.loadPart = partLoader(page.builtParts);
