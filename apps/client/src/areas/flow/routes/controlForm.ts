/** A line of the input map as a form, and the plan that it comes to. */
import { formatWire, refuse, type Read } from '@taxiarch/core/address';
import { added, changed, type Plan } from '@taxiarch/core/patch';
import { checkRecord, type Control, type ControlTarget, type ShowRecords } from '@taxiarch/core/show';
import { wireFrom } from '@/data/routes';

export interface ControlForm {
  readonly universe: string;
  readonly channel: string;
  readonly does: Control['does'];
  readonly kind: ControlTarget['kind'];
  /** Id of a route, name of a group, or number of a universe */
  readonly target: string;
  readonly threshold: string;
}

export const NEW_CONTROL: ControlForm = {
  universe: '',
  channel: '',
  does: 'master',
  kind: 'route',
  target: '',
  threshold: '128',
};

export const controlFormOf = ({ wire, channel, does, target, threshold }: Control): ControlForm => ({
  universe: formatWire(wire),
  channel: String(channel),
  does,
  kind: target.kind,
  target: target.kind === 'route' ? target.id : target.kind === 'group' ? target.name : String(target.number),
  threshold: String(threshold),
});

/** What a control moves, in words: `route Over`, `group Spots`, `universe 3`. */
export function targetText(target: ControlTarget, { route }: Pick<ShowRecords, 'route'>): string {
  if (target.kind === 'route') return `route ${route.find(({ id }) => id === target.id)?.name ?? 'gone'}`;
  return target.kind === 'group' ? `group ${target.name}` : `universe ${target.number}`;
}

export const controlText = (control: Control, records: Pick<ShowRecords, 'route'>): string =>
  control.does === 'master'
    ? `master of ${targetText(control.target, records)}`
    : `switches ${targetText(control.target, records)} from ${control.threshold}`;

const number = (text: string): number => (/^\d{1,5}$/.test(text.trim()) ? Number(text.trim()) : NaN);

export function controlPlan(
  form: ControlForm,
  base: Control | undefined,
  id: string,
  records: ShowRecords,
): Read<Plan> {
  const wire = wireFrom(form.universe, records.universe);
  if (!wire.ok) return wire;
  if (form.target === '') return refuse(`Say which ${form.kind} it moves.`);
  const target: ControlTarget =
    form.kind === 'route'
      ? { kind: 'route', id: form.target }
      : form.kind === 'group'
        ? { kind: 'group', name: form.target }
        : { kind: 'universe', number: number(form.target) };
  const control: Control = {
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: `${formatWire(wire.value)}/${form.channel.trim()}`,
    wire: wire.value,
    channel: number(form.channel),
    does: form.does,
    target,
    threshold: number(form.threshold),
  };
  const checked = checkRecord('control', control);
  if (!checked.ok) return refuse(checked.faults[0]!.why);
  const twin = records.control.find((one) => one.id !== control.id && one.name === control.name);
  if (twin && controlText(twin, records) === controlText(control, records))
    return refuse(`${twin.name} does that already.`);
  const after = controlText(control, records);
  const before = base ? `${base.name}, ${controlText(base, records)}` : '';
  if (before === `${control.name}, ${after}`) return refuse('Nothing would change.');
  return {
    ok: true,
    value: {
      sentence: `${base ? 'Changed' : 'Added'} ${control.name} in the input map`,
      changes: [base ? changed('control', base, control) : added('control', control)],
      lines: [{ subject: control.name, before: base ? controlText(base, records) : '', after }],
    },
  };
}
