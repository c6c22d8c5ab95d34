import { useWindowDimensions } from 'react-native';

/** From this width on list, detail and rail stand side by side. */
const WIDE = 1024;

/** A phone on its side: below this height head and list stand beside each other. */
const SHORT = 500;

export const useShort = (): boolean => useWindowDimensions().height < SHORT;

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
