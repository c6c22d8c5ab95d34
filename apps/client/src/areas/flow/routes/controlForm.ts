/** A row of the table of input channels as a form, and the plan that it comes to. */
import { formatWire } from '@taxiarch/core/base/address';
import { refuse, type Result } from '@taxiarch/core/base/result';
import { added, changed, type Plan } from '@taxiarch/core/show/edit';
import { checkRecord, type Control, type ControlTarget, type ShowRecords } from '@taxiarch/core/show/records';
import { controlText } from '@taxiarch/core/network/flow';
import { wireFrom } from '@/data/routes';

export interface ControlForm {
  /** Universe and channel in one: `41/3`, `sACN 41/3`, `0.1.2/3` */
  readonly at: string;
  /** One of {@link movesOptions}; empty before one is chosen */
  readonly moves: string;
  /** A switch is on from this level, 1–255; 50 % without one */
  readonly threshold: string;
}

export const NEW_CONTROL: ControlForm = { at: '', moves: '', threshold: '128' };

const movesOf = ({ does, target }: Pick<Control, 'does' | 'target'>): string => {
  const of = target.kind === 'route' ? target.id : target.kind === 'group' ? target.name : String(target.number);
  return `${does} ${target.kind} ${of}`;
};

function readMoves(text: string): Pick<Control, 'does' | 'target'> | undefined {
  const [, does, kind, of = ''] = /^(master|switch) (route|group|universe) (.*)$/.exec(text) ?? [];
  if (does === undefined) return undefined;
  const target: ControlTarget =
    kind === 'route'
      ? { kind, id: of }
      : kind === 'group'
        ? { kind, name: of }
        : { kind: 'universe', number: number(of) };
  return { does: does as Control['does'], target };
}

/** Everything that an input channel can move, for one choice. */
export function movesOptions(
  { route, universe }: Pick<ShowRecords, 'route' | 'universe'>,
  groups: readonly string[],
): { readonly value: string; readonly label: string }[] {
  const option = (does: Control['does'], target: ControlTarget, label: string) => ({
    value: movesOf({ does, target }),
    label,
  });
  return [
    ...route.map(({ id, name }) => option('master', { kind: 'route', id }, `Scales route ${name}`)),
    ...route.map(({ id, name }) => option('switch', { kind: 'route', id }, `Switches route ${name}`)),
    ...groups.map((name) => option('master', { kind: 'group', name }, `Scales group ${name}`)),
    ...universe.map(({ number: of, name }) =>
      option('master', { kind: 'universe', number: of }, `Scales all routes into universe ${of} ${name}`.trim()),
    ),
  ];
}

export const isSwitch = ({ moves }: ControlForm): boolean => moves.startsWith('switch ');

export const controlFormOf = ({ wire, channel, does, target, threshold }: Control): ControlForm => ({
  at: `${formatWire(wire)}/${channel}`,
  moves: movesOf({ does, target }),
  threshold: String(threshold),
});

const number = (text: string): number => (/^\d{1,5}$/.test(text.trim()) ? Number(text.trim()) : NaN);

export function controlPlan(
  form: ControlForm,
  base: Control | undefined,
  id: string,
  records: ShowRecords,
): Result<Plan> {
  const slash = form.at.lastIndexOf('/');
  if (slash < 0) return refuse('not-understood', 'Write universe and channel, as in 41/3.');
  const wire = wireFrom(form.at.slice(0, slash), records.universe);
  if (!wire.ok) return wire;
  const moved = readMoves(form.moves);
  if (!moved) return refuse('not-understood', 'Choose what this channel moves.');
  const channel = form.at.slice(slash + 1).trim();
  const control: Control = {
    id: base?.id ?? id,
    rev: base?.rev ?? 0,
    name: `${formatWire(wire.value)}/${channel}`,
    wire: wire.value,
    channel: number(channel),
    ...moved,
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
