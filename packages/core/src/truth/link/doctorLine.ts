/** One line of the doctor's list, and what its checks look at. */
import type { Heard } from '../../network/node';
import type { NodeReport } from '../../network/node';
import type { StreamReport } from '../../signal/stream';
import type { Plan } from '../../show/edit';
import type { Sender } from '../../network/flow';
import { seenOf, type Known, type OnPath, type Seen } from '../known';
import type { Link, Machine, ShowRecords } from '../../show/records';
import type { LinkedUniverse } from './linked';

/** `planned`: right by the plan, and nothing more is known; `ask`: only a person can tell. */
export type DoctorState = 'fine' | 'must fix' | 'planned' | 'ask';

export interface DoctorLine {
  readonly name: string;
  readonly title: string;
  readonly state: DoctorState;
  readonly known: Known;
  readonly says: string;
  /** What to do; empty if it is fine */
  readonly mend: string;
  readonly repair?: { readonly label: string; readonly plan: Plan };
  /** What a person answered */
  readonly seen?: Seen;
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

export const fine = (name: string, title: string, says: string, known: 'heard' | 'said' | 'seen'): DoctorLine => ({
  name,
  title,
  state: 'fine',
  known,
  says,
  mend: '',
});
/** Right by the plan; nothing that was heard, said or seen confirms it. */
export const planned = (name: string, title: string, says: string): DoctorLine => ({
  name,
  title,
  state: 'planned',
  known: 'worked out',
  says,
  mend: '',
});
export const wrong = (
  name: string,
  title: string,
  says: string,
  mend: string,
  known: Known = 'worked out',
): DoctorLine => ({ name, title, state: 'must fix', known, says, mend });

/** All that a link rests on: what of it changed makes a person's answer old. */
const pathOf = ({ link, sender, visualiser, node, records }: Case): OnPath[] => {
  const linked = (number: number) => link.lines.some(({ from, count }) => number >= from && number < from + count);
  return [
    { name: link.name, rev: link.rev },
    { name: sender.name, rev: sender.machine.rev },
    { name: visualiser.name, rev: visualiser.rev },
    ...records.universe
      .filter(({ number }) => linked(number))
      .map(({ number, rev }) => ({ name: `universe ${number}`, rev })),
    ...(node ? [{ name: `${visualiser.name}, started again`, began: node.firstSeen }] : []),
  ];
};

/** A question; fine once a person has said so, until something on the path changes. */
export function ask(one: Case, name: string, title: string, says: string, mend: string): DoctorLine {
  const seen = seenOf(one.records, { kind: 'link', id: one.link.id, part: '' }, name, pathOf(one));
  const open: DoctorLine = { name, title, state: 'ask', known: 'not known', says, mend };
  if (!seen) return open;
  const who = seen.by === '' ? 'Somebody' : seen.by;
  if (seen.changed.length > 0)
    return {
      ...open,
      seen,
      says: `${who} found it ${seen.answer === 'yes' ? 'well' : 'wrong'}; since then ${seen.changed.slice(0, 3).join(', ')} changed. ${says}`,
    };
  return seen.answer === 'yes'
    ? { ...fine(name, title, `${who} looked, and found it well.`, 'seen'), seen }
    : { ...wrong(name, title, `${who} looked, and it is not so.`, mend, 'seen'), seen };
}
