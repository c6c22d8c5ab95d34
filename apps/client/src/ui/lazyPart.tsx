/** Pages, and parts of them, whose script comes when they are first shown (`data/parts` fetches it, and says if it is late). */
import { lazy, Suspense, type ComponentType } from 'react';

export function lazyPart<P extends object>(load: () => Promise<ComponentType<P>>): ComponentType<P> {
  const Part = lazy(async () => ({ default: await load() }));
  return function LazyPart(props: P) {
    return (
      <Suspense>
        <Part {...props} />
      </Suspense>
    );
  };
}
