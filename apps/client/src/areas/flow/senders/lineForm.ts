/** Lines of a sender's table as a form: one line whole, or what is to be set on many. */
import {
  readPortAddress,
  readSacnUniverse,
  readUniverses,
  read,
  refuse,
  runsOf,
  type Protocol,
  type Read,
  type WireUniverse,
} from '@taxiarch/core/address';
import { rangeText } from '@taxiarch/core/flow';
import { PLAIN_RANGE, type Delivery, type SourceRange } from '@taxiarch/core/show';

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

export const lineFormOf = (range: SourceRange): LineForm => ({
  universes: rangeText(range),
  protocol: range.to?.protocol ?? 'planned',
  wire: range.to ? String(range.to.number) : '',
  delivery: range.delivery,
  addresses: range.addresses.join(' '),
  interface: range.interface,
  rate: String(range.rate),
  priority: String(range.priority),
  slotPriority: yesNo(range.slotPriority),
  on: yesNo(range.on),
  whenIdle: yesNo(range.whenIdle),
  note: range.note,
});

/** A new line before anything is typed. */
export const NEW_LINE: LineForm = { ...lineFormOf({ ...PLAIN_RANGE, from: 1 }), universes: '' };

function wireFrom({ protocol, wire }: LineForm): Read<WireUniverse | null> {
  if (protocol === 'planned') return read(null);
  const number = protocol === 'sacn' ? readSacnUniverse(wire) : readPortAddress(wire);
  return number.ok ? read({ protocol: protocol as Protocol, number: number.value }) : number;
}

const numberFrom = (text: string, now: number): number => (text.trim() === '' ? now : Number(text.trim()));
const flagFrom = (text: string, now: boolean): boolean => (text === SAME ? now : text === 'yes');

function ontoLine(form: LineForm, range: SourceRange, to: WireUniverse | null): SourceRange {
  return {
    ...range,
    to,
    delivery: form.delivery === SAME ? range.delivery : (form.delivery as Delivery),
    addresses: form.addresses.trim() === '' ? range.addresses : form.addresses.trim().split(/[\s,;]+/),
    interface: form.interface.trim() || range.interface,
    rate: numberFrom(form.rate, range.rate),
    priority: numberFrom(form.priority, range.priority),
    slotPriority: flagFrom(form.slotPriority, range.slotPriority),
    on: flagFrom(form.on, range.on),
    whenIdle: flagFrom(form.whenIdle, range.whenIdle),
    note: form.note.trim() || range.note,
  };
}

/** The lines that a form for one makes: one for each run of universes, their wire numbers running on. */
export function linesFrom(form: LineForm): Read<SourceRange[]> {
  const universes = readUniverses(form.universes);
  if (!universes.ok) return universes;
  if (universes.value.length === 0) return refuse('Say which universes: 1-8, or 1-8, 12.');
  const wire = wireFrom(form);
  if (!wire.ok) return wire;
  let sent = 0;
  return read(
    runsOf(universes.value).map(([from, last]) => {
      const count = last - from + 1;
      const to = wire.value && { ...wire.value, number: wire.value.number + sent };
      sent += count;
      // What stands in the form is all that the line has: an emptied field is empty.
      return { ...ontoLine(form, { ...PLAIN_RANGE, from, count }, to), from, count };
    }),
  );
}

/** Lines with what the form says set on the chosen ones; with a wire number, they follow one another from it. */
export function setLines(
  ranges: readonly SourceRange[],
  chosen: ReadonlySet<number>,
  form: LineForm,
): Read<SourceRange[]> {
  const wire = form.protocol === SAME ? undefined : wireFrom(form);
  if (wire && !wire.ok) return wire;
  let sent = 0;
  return read(
    ranges.map((range, i) => {
      if (!chosen.has(i)) return range;
      const to = wire === undefined ? range.to : wire.value && { ...wire.value, number: wire.value.number + sent };
      sent += range.count;
      return ontoLine(form, range, to);
    }),
  );
}
