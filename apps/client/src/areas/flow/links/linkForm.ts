/** A link as a form, and the plan that it comes to. */
import { type Protocol, protocolName } from '@taxiarch/core/base/address';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { rangeText, sendersOf } from '@taxiarch/core/network/flow';
import { proposeLines } from '@taxiarch/core/truth/link';
import { added, type Plan, recordPlan } from '@taxiarch/core/show/edit';
import { checkRecord, type Link, type ShowRecords } from '@taxiarch/core/show/records';
import { newMachine } from '@/forms/MachineChoice';

export interface LinkForm {
  readonly senderId: string;
  /** Empty for a new one */
  readonly visualiserId: string;
  /** Of a new visualiser */
  readonly visualiserName: string;
  readonly visualiserAddress: string;
  readonly protocol: Protocol;
  readonly senderBase: Link['senderBase'];
  readonly receiverBase: Link['receiverBase'];
  readonly lines: Link['lines'];
  readonly startsFirst: Link['startsFirst'];
}

const NEW_LINK: LinkForm = {
  senderId: '',
  visualiserId: '',
  visualiserName: '',
  visualiserAddress: '',
  protocol: 'sacn',
  senderBase: 1,
  receiverBase: 1,
  lines: [],
  startsFirst: 'sender',
};

export const linkFormOf = ({ id: _id, rev: _rev, name: _name, ...form }: Link): LinkForm => ({
  ...NEW_LINK,
  ...form,
});

/** A new link: the only sender and the only visualiser of the show are meant if nobody says otherwise. */
export function newLinkForm({ machine, universe }: ShowRecords): LinkForm {
  const [sender, ...otherSenders] = sendersOf(machine);
  const [visualiser, ...otherVisualisers] = machine.filter(({ kind }) => kind === 'visualiser');
  const only = otherSenders.length === 0 ? sender : undefined;
  // Art-Net only if it sends all by that.
  const artnet = only !== undefined && proposeLines(only, 'sacn', universe).length === 0;
  const protocol = artnet ? 'artnet' : 'sacn';
  return {
    ...NEW_LINK,
    protocol,
    senderId: only?.id ?? '',
    visualiserId: otherVisualisers.length === 0 ? (visualiser?.id ?? '') : '',
    lines: only ? proposeLines(only, protocol, universe) : [],
  };
}

const linesText = (lines: Link['lines']): string =>
  lines.map((line) => `${rangeText(line)} as ${rangeText({ ...line, from: line.to })}`).join(', ') || 'none';

export function linkPlan(form: LinkForm, base: Link | undefined, id: string, records: ShowRecords): Result<Plan> {
  const sender = records.machine.find((one) => one.id === form.senderId);
  const { visualiserName: name, visualiserAddress: address, ...parts } = form;
  const known = records.machine.find((one) => one.id === form.visualiserId);
  const visualiser = known ?? newMachine({ machineId: '', kind: 'visualiser', name, address }, `${id}-visualiser`);
  if (!sender?.sends) return refuse('nothing', 'Choose the sender.');
  if (visualiser.name === '') return refuse('nothing', 'Choose the visualiser, or name a new one.');
  if (form.lines.length === 0) return refuse('not-understood', 'Say which universes: one to one, or line by line.');
  const link: Link = {
    ...parts,
    visualiserId: visualiser.id,
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: `${sender.name} by ${protocolName(form.protocol)} to ${visualiser.name}`,
  };
  const checked = checkRecord('machine', visualiser);
  if (!checked.ok) return refuse('not-understood', checked.why);
  const nameOf = (of: string) => [...records.machine, visualiser].find((one) => one.id === of)?.name ?? '';
  return recordPlan('link', base, link, {
    along: known
      ? undefined
      : {
          changes: [added('machine', visualiser)],
          lines: [{ subject: visualiser.name, before: '', after: visualiser.kind }],
        },
    tellers: {
      name: null,
      senderId: nameOf,
      visualiserId: nameOf,
      protocol: protocolName,
      lines: linesText,
    },
  });
}
