/** Pages, and parts of them, whose script comes when they are first shown (`data/parts` fetches it, and says if it is late). */
import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';
import { PageShape } from './PageShape';

/** `shape` stands in its place until it is there. */
export function lazyPart<P extends object>(
  load: () => Promise<ComponentType<P>>,
  shape: ReactNode = <PageShape />,
): ComponentType<P> {
  const Part = lazy(async () => ({ default: await load() }));
  return function LazyPart(props: P) {
    return (
      <Suspense fallback={shape}>
        <Part {...props} />
      </Suspense>
    );
  };
}
