/** Pages, and parts of them, whose script comes when they are first shown. */
import { lazy, Suspense, useEffect, useState, type ComponentType } from 'react';
import { View } from 'react-native';
import { Button } from './Button';
import { Empty } from './Empty';

/** From one try to fetch a script to the next, ms */
const AGAIN_MS = 1000;
/** A script that comes sooner is not talked about, ms. */
const LATE_MS = 600;

/** Whoever has waited so long is told what else can be done, ms. */
const LONG_MS = 8000;

function BeingFetched() {
  const [waited, setWaited] = useState(0);
  useEffect(() => {
    const timers = [LATE_MS, LONG_MS].map((ms) => setTimeout(() => setWaited(ms), ms));
    return () => timers.forEach(clearTimeout);
  }, []);
  if (waited === 0) return null;
  if (waited < LONG_MS) return <Empty>This is being fetched…</Empty>;
  return (
    <View className="items-center gap-3">
      <Empty>This does not come: the server is away, or Taxiarch was renewed since this page was opened.</Empty>
      <Button label="Load the page anew" onPress={() => location.reload()} />
    </View>
  );
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
