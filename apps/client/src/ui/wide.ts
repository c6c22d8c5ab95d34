import { useWindowDimensions } from 'react-native';

/** From this width on list, detail and rail stand side by side. */
const WIDE = 1024;

/**
 * A phone on its side: head and list stand beside each other. The width counts too, for the keyboard of an upright phone
 * leaves as little height, and a layout that changed then would take the field away that is typed into.
 */
const SHORT = { below: 500, from: 600 };

export function useShort(): boolean {
  const { width, height } = useWindowDimensions();
  return height < SHORT.below && width >= SHORT.from;
}

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
