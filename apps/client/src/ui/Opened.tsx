/** What opens in answer to a press: it comes into sight by itself, wherever the page is scrolled to. */
import { useEffect, useRef, type ReactNode } from 'react';
import { View } from 'react-native';

export function Opened({ children }: { children: ReactNode }) {
  const box = useRef<View>(null);
  useEffect(() => {
    // On the web a View is its element.
    const element = box.current as unknown as HTMLElement | null;
    element?.scrollIntoView?.({ block: 'nearest' });
  }, []);
  return (
    <View ref={box} className="gap-2">
      {children}
    </View>
  );
}
