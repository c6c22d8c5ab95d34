/** Packets that were lost at this computer or go beyond what is kept: said once it happens. */
import { MOST_ROUTES } from '@taxiarch/core/whole/contract/feed';
import { MOST_CONTENDERS } from '@taxiarch/core/signal/merge';
import type { EngineReport } from './engineMessages';
import type { Notices } from './notices';
import { MOST_UNIVERSES } from './shared';

/** What is said when packets are not read because they go beyond what is kept. */
const LIMITS: Readonly<Record<string, string>> = {
  'too-many-universes': `More than ${MOST_UNIVERSES - MOST_ROUTES} universes are heard or planned: what comes on further ones is not read.`,
  'too-many-announcers':
    'More sources announce sACN universes than are remembered: what further ones announce is not listened to, unless it is planned or opened.',
  'too-many-syncs': 'More sources synchronise than are told apart: the packets of further ones are not read.',
  'too-many-senders': `More than ${MOST_CONTENDERS} senders came on one universe: further ones are not read.`,
};

export class Unread {
  private lost = 0;
  private readonly beyond = new Map<string, number>();

  constructor(private readonly notices: Notices) {}

  look({ lost, rejected }: Pick<EngineReport, 'lost' | 'rejected'>): void {
    this.sayLoss(lost);
    for (const [reason, sentence] of Object.entries(LIMITS)) {
      const count = rejected[reason] ?? 0;
      if (count > (this.beyond.get(reason) ?? 0)) this.notices.say(reason, sentence);
      this.beyond.set(reason, count);
    }
  }

  /** Such packets are nobody else's fault, and everything that is said is less sure for them. */
  private sayLoss(lost: number): void {
    const more = lost - this.lost;
    this.lost = lost;
    if (more <= 0) return;
    this.notices.say(
      'lost',
      `${lost.toLocaleString('en-GB')} packets were lost at this computer, which could not take them in. What is said to be missing may have been sent.`,
      'Close other programs, let the system hold more packets (This computer says how), or join fewer universes.',
    );
  }
}
