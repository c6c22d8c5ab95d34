/** A link as a form, and the plan that it comes to. */
import { protocolName, refuse, type Protocol, type Read } from '@taxiarch/core/address';
import { rangeText } from '@taxiarch/core/flow';
import { added, changed, type Plan } from '@taxiarch/core/patch';
import { checkRecord, type Link, type ShowRecords } from '@taxiarch/core/show';

export interface LinkForm {
  readonly sourceId: string;
  readonly machineId: string;
  readonly protocol: Protocol;
  readonly senderBase: Link['senderBase'];
  readonly receiverBase: Link['receiverBase'];
  readonly lines: Link['lines'];
  readonly startsFirst: Link['startsFirst'];
}

export const NEW_LINK: LinkForm = {
  sourceId: '',
  machineId: '',
  protocol: 'sacn',
  senderBase: 1,
  receiverBase: 1,
  lines: [],
  startsFirst: 'sender',
};

export const linkFormOf = ({ id: _id, rev: _rev, name: _name, well: _well, ...form }: Link): LinkForm => form;

const linesText = (lines: Link['lines']): string =>
  lines.map((line) => `${rangeText(line)} as ${rangeText({ ...line, from: line.to })}`).join(', ') || 'none';

export function linkPlan(form: LinkForm, base: Link | undefined, id: string, records: ShowRecords): Read<Plan> {
  const source = records.source.find((one) => one.id === form.sourceId);
  const machine = records.machine.find((one) => one.id === form.machineId);
  if (!source) return refuse('Choose the sender.');
  if (!machine) return refuse('Choose the visualiser; it is planned in Wire as a machine.');
  if (form.lines.length === 0) return refuse('Say which universes: one to one, or line by line.');
  const link: Link = {
    ...form,
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: `${source.name} by ${protocolName(form.protocol)} to ${machine.name}`,
    // Another order asks its question anew.
    well: (base?.well ?? []).filter((name) => name !== 'order' || base?.startsFirst === form.startsFirst),
  };
  const checked = checkRecord('link', link);
  if (!checked.ok) return refuse(checked.faults[0]!.why);
  const told = (one: Link | LinkForm): Record<string, string> => ({
    protocol: protocolName(one.protocol),
    'the sender counts from': String(one.senderBase),
    'the visualiser counts from': String(one.receiverBase),
    universes: linesText(one.lines),
    'starts first': one.startsFirst,
    ends: `${records.source.find(({ id: its }) => its === one.sourceId)?.name} to ${records.machine.find(({ id: its }) => its === one.machineId)?.name}`,
  });
  const lines = Object.entries(told(link)).flatMap(([field, after]) => {
    const before = base ? told(base)[field]! : '';
    return before === after ? [] : [{ subject: `${link.name}, ${field}`, before, after }];
  });
  if (lines.length === 0) return refuse('Nothing would change.');
  return {
    ok: true,
    value: {
      sentence: `${base ? 'Changed' : 'Added'} the link ${link.name}`,
      changes: [base ? changed('link', base, link) : added('link', link)],
      lines,
    },
  };
}
