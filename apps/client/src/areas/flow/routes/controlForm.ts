/** A line of the input map as a form, and the plan that it comes to. */
import { formatWire } from '@taxiarch/core/address';
import { refuse, type Result } from '@taxiarch/core/result';
import { added, changed, type Plan } from '@taxiarch/core/edit';
import { checkRecord, type Control, type ControlTarget, type ShowRecords } from '@taxiarch/core/records';
import { controlText } from '@taxiarch/core/flow';
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

const number = (text: string): number => (/^\d{1,5}$/.test(text.trim()) ? Number(text.trim()) : NaN);

export function controlPlan(
  form: ControlForm,
  base: Control | undefined,
  id: string,
  records: ShowRecords,
): Result<Plan> {
  const wire = wireFrom(form.universe, records.universe);
  if (!wire.ok) return wire;
  if (form.target === '') return refuse('not-understood', `Say which ${form.kind} it moves.`);
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
  if (!checked.ok) return refuse('not-understood', checked.why);
  const twin = records.control.find((one) => one.id !== control.id && one.name === control.name);
  if (twin && controlText(twin, records) === controlText(control, records))
    return refuse('nothing', `${twin.name} does that already.`);
  const after = controlText(control, records);
  const before = base ? `${base.name}, ${controlText(base, records)}` : '';
  if (before === `${control.name}, ${after}`) return refuse('nothing', 'Nothing would change.');
  return {
    ok: true,
    value: {
      sentence: `${base ? 'Changed' : 'Added'} ${control.name} in the input map`,
      changes: [base ? changed('control', base, control) : added('control', control)],
      lines: [{ subject: control.name, before: base ? controlText(base, records) : '', after }],
    },
  };
}
