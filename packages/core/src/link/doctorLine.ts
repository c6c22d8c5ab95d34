/** One line of the doctor's list, and what its checks look at. */
import type { Heard } from '../node';
import type { NodeReport } from '../node';
import type { StreamReport } from '../stream';
import type { Plan } from '../edit';
import type { Sender } from '../flow';
import type { Link, Machine, ShowRecords } from '../records';
import type { LinkedUniverse } from './linked';

export type DoctorState = 'fine' | 'must fix' | 'ask';

export interface DoctorLine {
  readonly name: string;
  readonly title: string;
  readonly state: DoctorState;
  readonly says: string;
  /** What to do; empty if it is fine */
  readonly mend: string;
  readonly repair?: { readonly label: string; readonly plan: Plan };
}

/** What is heard, as far as the doctor asks. */
export interface LinkHeard extends Pick<Heard, 'universes' | 'nodes'> {
  /** Unix time at which this computer began to listen, ms */
  readonly listeningSince: number;
}

/** What the checks look at, gathered once. */
export interface Case {
  readonly link: Link;
  readonly records: ShowRecords;
  readonly sender: Sender;
  readonly visualiser: Machine;
  /** Universes of the link with where each goes out and where the visualiser listens for it */
  readonly universes: readonly LinkedUniverse[];
  readonly streams: readonly { readonly universe: number; readonly stream: StreamReport }[];
  readonly node: NodeReport | undefined;
  /** Show universes that it sends by the link’s protocol and that feed lamps or pixels, rising */
  readonly used: readonly number[];
  /** When Taxiarch began to listen, in the live report's milliseconds */
  readonly listeningSince: number;
}

export const fine = (name: string, title: string, says: string): DoctorLine => ({
  name,
  title,
  state: 'fine',
  says,
  mend: '',
});
export const wrong = (name: string, title: string, says: string, mend: string): DoctorLine => ({
  name,
  title,
  state: 'must fix',
  says,
  mend,
});

/** A question; fine once the person has said so. */
export function ask({ link }: Case, name: string, title: string, says: string, mend: string): DoctorLine {
  return link.well.includes(name)
    ? fine(name, title, 'Looked at, and found well.')
    : { name, title, state: 'ask', says, mend };
}
