/** What is asked of lamps through a port, and what comes of it. */
import { nackText, type Uid } from '../../protocol/rdm';

/** A node's port as RDM finds it: by its Art-Net address, whatever protocol feeds it. */
export interface LampPort {
  readonly address: string;
  readonly portAddress: number;
}

/** The same for all that hangs on one port. */
export const lampPortKey = ({ address, portAddress }: LampPort): string => `${address} ${portAddress}`;

export interface LampRequest {
  readonly uid: Uid;
  readonly set: boolean;
  readonly pid: number;
  readonly data: Uint8Array;
}

export type LampAnswer =
  | { readonly kind: 'ack'; readonly data: Uint8Array; /** Messages that it has waiting */ readonly waiting: number }
  /** It said no; {@link nackText} says why. */
  | { readonly kind: 'refused'; readonly reason: number }
  /** Asked three times */
  | { readonly kind: 'silent' }
  | { readonly kind: 'cancelled' };

/** Who hangs on a port. `off`: the node has no table, for its RDM is off or it still searches; `silent`: it says nothing. */
export interface LampTable {
  readonly kind: 'known' | 'off' | 'silent';
  readonly uids: readonly Uid[];
}

/** What asking cost a port since the engine began. */
export interface LineUse {
  readonly sent: number;
  /** Of those, how many brought no answer */
  readonly lost: number;
  /** Milliseconds of its line, by the standard’s timing */
  readonly ms: number;
}

export const answerText = (answer: LampAnswer): string => {
  switch (answer.kind) {
    case 'ack':
      return 'done';
    case 'refused':
      return nackText(answer.reason);
    case 'silent':
      return 'no answer';
    case 'cancelled':
      return 'not asked any more';
  }
};
