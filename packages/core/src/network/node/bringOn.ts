/** Bringing a new machine on, step by step; what the wire shows is ticked by itself. */
import { type Drift, portOf } from './drift';
import type { Machine } from '../../show/records';
import type { MachineEntry } from './match';

export interface BringOnStep {
  readonly id: string;
  readonly title: string;
  /** What to do, and where */
  readonly how: string;
  /** Seen on the wire; undefined for what only a person can see */
  readonly seen: boolean | undefined;
  readonly done: boolean;
}

/** The steps for a machine as it stands now. `locked` machines and those without ports have fewer. */
export function bringOnSteps({ plan, heard, drift, state }: MachineEntry & { readonly plan: Machine }): BringOnStep[] {
  const node = heard?.node;
  const answers = state === 'matched' || state === 'drifted';
  const fine = (...kinds: Drift['kind'][]) => answers && !drift.some(({ kind }) => kinds.includes(kind));
  const portsFine = answers && drift.every((one) => portOf(one) === null);
  const active = node?.ports.filter((port) => port.active).length ?? 0;
  const ticked = new Set(plan.ticks);
  const step = (id: string, title: string, how: string, seen: boolean | undefined): BringOnStep => ({
    id,
    title,
    how,
    seen,
    done: seen ?? ticked.has(id),
  });
  return [
    step('power', 'Power and cable', 'Its lights are on, and the light at the network socket too.', undefined),
    step(
      'answers',
      'It answers',
      'It is heard on the network. If not: its address, the cable, the interface in use.',
      answers,
    ),
    ...(plan.firmware === ''
      ? []
      : [
          step(
            'firmware',
            `Firmware ${plan.firmware}`,
            'As its display or its answers say.',
            node ? fine('firmware') : undefined,
          ),
        ]),
    ...(plan.mode === ''
      ? []
      : [step('mode', `Mode “${plan.mode}”`, 'Set at the box; no protocol tells it.', undefined)]),
    step('address', 'Address and mask', 'As planned.', answers ? fine('address', 'mask') : false),
    step('name', 'Name', 'It calls itself as the plan does.', node ? fine('name') : undefined),
    ...(plan.ports.length === 0
      ? []
      : [
          step(
            'ports',
            'Ports',
            'Direction, protocol, universe, merge as planned. Push them, then read them back.',
            node ? portsFine : undefined,
          ),
          step('signal', 'Signal', 'At least one port passes signal.', node ? active > 0 : undefined),
          step('light', 'A lamp answers', 'Take a lamp on it and see it light.', undefined),
        ]),
  ];
}
