/** Values that come anew with each report and are mostly the same. */
import { useMemo } from 'react';

/** The value of before for as long as it says the same; for plain data that is small enough to be written as text. */
export function useStable<T>(value: T): T {
  const text = JSON.stringify(value);
  return useMemo(() => JSON.parse(text) as T, [text]);
}
