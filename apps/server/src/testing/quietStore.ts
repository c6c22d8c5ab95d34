/** A show opened in this process, without a log. */
import { pino } from 'pino';
import type { Notices } from '../bridge/notices';
import { ShowStore } from '../store/store';

export const openQuietly = (
  folder: string,
  pattern: string,
  notices: Pick<Notices, 'say'> = { say: () => undefined },
): Promise<ShowStore> => ShowStore.open(folder, notices, pino({ level: 'silent' }), pattern);
