/** Lines of a sender's table as a form: one line whole, or what is to be set on many. */
import {
  type Protocol,
  readPortAddress,
  readSacnUniverse,
  readUniverses,
  runsOf,
  type WireUniverse,
} from '@taxiarch/core/base/address';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { rangeText } from '@taxiarch/core/network/flow';
import { type Delivery, PLAIN_LINE, type SendLine } from '@taxiarch/core/show/records';

/** Left as each line has it, where many are set at once. */
export const SAME = '';

export interface LineForm {
  /** Show universes, `1-8` or `1-8, 12`; empty where many are set at once */
  readonly universes: string;
  /** `planned`, `sacn` or `artnet` */
  readonly protocol: string;
  readonly wire: string;
  readonly delivery: string;
  readonly addresses: string;
  readonly interface: string;
  readonly rate: string;
  readonly priority: string;
  readonly slotPriority: string;
  readonly on: string;
  readonly whenIdle: string;
  readonly note: string;
}

export const UNTOUCHED: LineForm = {
  universes: '',
  protocol: SAME,
  wire: '',
  delivery: SAME,
  addresses: '',
  interface: '',
  rate: '',
  priority: '',
  slotPriority: SAME,
  on: SAME,
  whenIdle: SAME,
  note: '',
};

const yesNo = (yes: boolean) => (yes ? 'yes' : 'no');

export const lineFormOf = (line: SendLine): LineForm => ({
  universes: rangeText(line),
  protocol: line.to?.protocol ?? 'planned',
  wire: line.to ? String(line.to.number) : '',
  delivery: line.delivery,
  addresses: line.addresses.join(' '),
  interface: line.interface,
  rate: String(line.rate),
  priority: String(line.priority),
  slotPriority: yesNo(line.slotPriority),
  on: yesNo(line.on),
  whenIdle: yesNo(line.whenIdle),
  note: line.note,
});

/** A new line before anything is typed. */
export const newLine = (rate: number): LineForm => ({
  ...lineFormOf({ ...PLAIN_LINE, from: 1, rate }),
  universes: '',
});

function wireFrom({ protocol, wire }: LineForm): Result<WireUniverse | null> {
  if (protocol === 'planned') return ok(null);
  const number = protocol === 'sacn' ? readSacnUniverse(wire) : readPortAddress(wire);
  return number.ok ? ok({ protocol: protocol as Protocol, number: number.value }) : number;
}

const numberFrom = (text: string, now: number): number => (text.trim() === '' ? now : Number(text.trim()));
const flagFrom = (text: string, now: boolean): boolean => (text === SAME ? now : text === 'yes');

function ontoLine(form: LineForm, line: SendLine, to: WireUniverse | null): SendLine {
  return {
    ...line,
    to,
    delivery: form.delivery === SAME ? line.delivery : (form.delivery as Delivery),
    addresses: form.addresses.trim() === '' ? line.addresses : form.addresses.trim().split(/[\s,;]+/),
    interface: form.interface.trim() || line.interface,
    rate: numberFrom(form.rate, line.rate),
    priority: numberFrom(form.priority, line.priority),
    slotPriority: flagFrom(form.slotPriority, line.slotPriority),
    on: flagFrom(form.on, line.on),
    whenIdle: flagFrom(form.whenIdle, line.whenIdle),
    note: form.note.trim() || line.note,
  };
}

/** The lines that a form for one makes: one for each run of universes, their wire numbers running on. */
export function linesFrom(form: LineForm): Result<SendLine[]> {
  const universes = readUniverses(form.universes);
  if (!universes.ok) return universes;
  if (universes.value.length === 0) return refuse('not-understood', 'Say which universes: 1-8, or 1-8, 12.');
  const wire = wireFrom(form);
  if (!wire.ok) return wire;
  let sent = 0;
  return ok(
    runsOf(universes.value).map(([from, last]) => {
      const count = last - from + 1;
      const to = wire.value && { ...wire.value, number: wire.value.number + sent };
      sent += count;
      // What stands in the form is all that the line has: an emptied field is empty.
      return { ...ontoLine(form, { ...PLAIN_LINE, from, count }, to), from, count };
    }),
  );
}

/** Lines with what the form says set on the chosen ones; with a wire number, they follow one another from it. */
export function setLines(lines: readonly SendLine[], chosen: ReadonlySet<number>, form: LineForm): Result<SendLine[]> {
  const wire = form.protocol === SAME ? undefined : wireFrom(form);
  if (wire && !wire.ok) return wire;
  let sent = 0;
  return ok(
    lines.map((line, i) => {
      if (!chosen.has(i)) return line;
      const to = wire === undefined ? line.to : wire.value && { ...wire.value, number: wire.value.number + sent };
      sent += line.count;
      return ontoLine(form, line, to);
    }),
  );
}
