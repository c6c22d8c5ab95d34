/** What a machine is planned to send as a form, and the plan that it comes to; a new sender may be a new machine. */
import { added, put, type Plan, type PlanLine } from '@taxiarch/core/show/edit';
import { lineDifferences, universesOf, withLines } from '@taxiarch/core/network/flow';
import { missingUniverses } from '@taxiarch/core/rig/patch';
import { readUniverses, runsOf } from '@taxiarch/core/base/address';
import {
  PLAIN_LINE,
  checkRecord,
  type Machine,
  type Pennant,
  type SendLine,
  type ShowRecords,
} from '@taxiarch/core/show/records';
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { newMachine, type MachineChoiceForm } from '@/forms/MachineChoice';

export interface SenderForm extends MachineChoiceForm {
  readonly lines: readonly SendLine[];
  readonly pennant: Pennant;
}

export const formOf = (machine: Machine | undefined): SenderForm => ({
  machineId: machine?.id ?? '',
  name: '',
  kind: 'console',
  address: '',
  lines: machine?.sends?.lines ?? [],
  pennant: machine?.sends?.pennant ?? { letter: '', cut: 'square', fill: 'plain' },
});

const flagText = ({ letter, cut, fill }: Pennant): string => `${letter}, ${cut}, ${fill}`;

/** A new sender of universes that are asked for, `1-4`; `machineId` if it is one of the show. */
export function newForm(asked: string, machineId: string, rate: number): SenderForm {
  const read = readUniverses(asked);
  const runs = read.ok ? runsOf(read.value) : [];
  return {
    ...formOf(undefined),
    machineId,
    lines: runs.map(([from, last]) => ({ ...PLAIN_LINE, from, count: last - from + 1, rate })),
  };
}

/** What a form would write; universes that the show lacks come along. */
export function planOf(
  form: SenderForm,
  edited: Machine | undefined,
  id: string,
  records: ShowRecords,
  newId: () => string,
): Result<Plan> {
  const { lines, pennant } = form;
  const base = edited ?? records.machine.find((one) => one.id === form.machineId);
  const machine = base ?? newMachine(form, id);
  if (!base && machine.name === '') return refuse('nothing', 'Give the new machine a name, or choose one of the show.');
  const letter = pennant.letter.trim() || (machine.name[0] ?? '?').toUpperCase();
  const after = withLines(machine, lines, { ...pennant, letter });
  const checked = checkRecord('machine', after);
  if (!checked.ok) return refuse('not-understood', checked.why);
  const before = base?.sends;
  const told: PlanLine[] = [
    ...(base ? [] : [{ subject: machine.name, before: '', after: machine.kind }]),
    ...(before && flagText(before.pennant) === flagText(after.sends!.pennant)
      ? []
      : [
          {
            subject: `${machine.name}, flag`,
            before: before ? flagText(before.pennant) : '',
            after: flagText(after.sends!.pennant),
          },
        ]),
    ...lineDifferences(machine.name, before?.lines ?? [], lines),
  ];
  if (told.length === 0) return refuse('nothing', 'Nothing would change.');
  const missing = missingUniverses(records, universesOf({ lines }), newId);
  return ok({
    sentence: `${before ? 'Changed' : 'Added'} the sender ${machine.name}`,
    changes: [...missing.changes, base ? put('machine', base, after) : added('machine', after)],
    lines: [...missing.lines, ...told],
  });
}
