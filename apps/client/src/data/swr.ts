/** How every screen asks the server, and asks again. */
import type { SWRConfiguration } from 'swr';

const SOON_MS = 1000;
const LONGEST_MS = 5000;

/**
 * The server is near, and whoever looks at a screen waits: it is asked again soon, and never less than every 5 s. What
 * was refused is asked again as well, because what stands against it may go at any time.
 */
export const SWR_CONFIG: SWRConfiguration = {
  revalidateOnFocus: false,
  keepPreviousData: true,
  onErrorRetry: (_error, _key, _config, revalidate, { retryCount }) => {
    setTimeout(() => void revalidate({ retryCount }), Math.min(SOON_MS * retryCount, LONGEST_MS));
  },
};
