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

/** Fetches a script and runs it; refused when the browser cannot have it. */
const fetchScript: Fetch = (url) =>
  new Promise((done, fail) => {
    const script = document.createElement('script');
    script.src = url;
    script.onload = () => {
      script.remove();
      done();
    };
    script.onerror = () => {
      script.remove();
      fail(new Error(`${url} did not come.`));
    };
    document.head.appendChild(script);
  });

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
export function loader(fetchOnce: Fetch = fetchScript): Fetch {
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

/** The bundler calls what it finds under this name; it knows the parts by their paths from the root of the site. */
(globalThis as { __loadBundleAsync?: Fetch }).__loadBundleAsync = loader();
