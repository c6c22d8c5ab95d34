/** Pages, and parts of them, whose script comes when they are first shown. */
import { lazy, Suspense, useEffect, useState, type ComponentType } from 'react';
import { Empty } from './Empty';

/** From one try to fetch a script to the next, ms */
const AGAIN_MS = 1000;
/** A script that comes sooner is not talked about, ms. */
const LATE_MS = 600;

function BeingFetched() {
  const [late, setLate] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setLate(true), LATE_MS);
    return () => clearTimeout(timer);
  }, []);
  return late ? <Empty>This is being fetched…</Empty> : null;
}

/** What `load` fetches; a script that does not come is asked for until it does. */
export function lazyPart<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Part = lazy(async () => {
    for (;;)
      try {
        return { default: await load() };
      } catch {
        await new Promise((again) => setTimeout(again, AGAIN_MS));
      }
  });
  return function LazyPart(props: P) {
    return (
      <Suspense fallback={<BeingFetched />}>
        <Part {...props} />
      </Suspense>
    );
  };
}
