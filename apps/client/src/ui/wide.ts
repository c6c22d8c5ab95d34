import { useWindowDimensions } from 'react-native';

/** From this width on list, detail and rail stand side by side. */
const WIDE = 1024;

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
