/** What can be dragged, and where it can be dropped; for every drag there is also a way by tapping. */
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter';
import { useEffect, useRef, useState, type CSSProperties, type ReactNode, type RefObject } from 'react';

/** Lets the element be dragged as `what`; without it, it stays where it is. */
export function useDrag(target: RefObject<HTMLElement | null>, what: string | undefined): void {
  useEffect(() => {
    const element = target.current;
    if (!element || what === undefined) return;
    // A link in it would be dragged by itself, as an address.
    const holdLinks = () => element.querySelectorAll('a').forEach((link) => (link.draggable = false));
    element.addEventListener('pointerdown', holdLinks, { capture: true });
    const stop = draggable({ element, getInitialData: () => ({ what }) });
    return () => {
      element.removeEventListener('pointerdown', holdLinks, { capture: true });
      stop();
    };
  }, [target, what]);
}

/** Lets the element take what is dropped on it; whether something is held over it. */
export function useDrop(target: RefObject<HTMLElement | null>, onDrop: (what: string) => void): boolean {
  const latest = useRef(onDrop);
  const [over, setOver] = useState(false);
  useEffect(() => {
    latest.current = onDrop;
  });
  useEffect(() => {
    const element = target.current;
    if (!element) return;
    return dropTargetForElements({
      element,
      onDragEnter: () => setOver(true),
      onDragLeave: () => setOver(false),
      onDrop: ({ source }) => {
        setOver(false);
        const { what } = source.data;
        if (typeof what === 'string') latest.current(what);
      },
    });
  }, [target]);
  return over;
}

interface Props {
  /** What it is when it is dropped; without it, it stays where it is */
  readonly what: string | undefined;
  readonly style?: CSSProperties;
  /** The row of a list that it stands for */
  readonly row?: string | undefined;
  readonly children: ReactNode;
}

/** A box that can be dragged. */
export function Draggable({ what, style, row, children }: Props) {
  const target = useRef<HTMLDivElement>(null);
  useDrag(target, what);
  return (
    <div ref={target} data-row={row} style={{ ...(what !== undefined && { cursor: 'grab' }), ...style }}>
      {children}
    </div>
  );
}
