/** What a person does to runs of pixels and their controllers, with where everything comes to lie. */
import { formatAddress } from '../address';
import { layRuns } from '../pixel';
import type { ControllerLimits, Machine, PixelRun } from '../show';
import { added, changed, missingUniverses, removed, type Plan, type Rig } from './plan';

/** Writes a run; lines say where it and the runs that follow it come to lie. */
export function putRun({ records }: Rig, run: PixelRun, newId: () => string): Plan {
  const before = records.run.find(({ id }) => id === run.id);
  const runs = [...records.run.filter(({ id }) => id !== run.id), run];
  const ends = (list: readonly PixelRun[]) =>
    new Map(
      layRuns(list, records.machine).map(({ run: one, segments }) => {
        const first = segments[0];
        const last = segments[segments.length - 1];
        const text =
          first && last
            ? `${formatAddress(first)} – ${formatAddress({ ...last, channel: last.channel + last.length - 1 })}`
            : 'nowhere';
        return [one.id, text];
      }),
    );
  const was = ends(records.run);
  const is = ends(runs);
  const needed = layRuns(runs, records.machine).flatMap(({ segments }) => segments.map(({ universe }) => universe));
  const universes = missingUniverses(records, needed, newId);
  const lines = runs
    .filter(({ id }) => id === run.id || was.get(id) !== is.get(id))
    .map((one) => ({ subject: `${one.number} ${one.name}`, before: was.get(one.id) ?? '', after: is.get(one.id)! }));
  return {
    sentence: `${before ? 'Changed' : 'Added'} run ${run.number} ${run.name}`,
    changes: [...universes.changes, before ? changed('run', before, run) : added('run', run)],
    lines: [...universes.lines, ...lines],
  };
}

export const removeRun = (run: PixelRun): Plan => ({
  sentence: `Removed run ${run.number} ${run.name}`,
  changes: [removed('run', run)],
  lines: [{ subject: `${run.number} ${run.name}`, before: `${run.count} pixels`, after: '' }],
});

/** Writes a pixel controller, new if there was none before. */
export function putController(
  before: Machine | undefined,
  machine: Machine & { readonly controller: ControllerLimits },
): Plan {
  const { firstUniverse, universes, outputs, channelsPerOutput } = machine.controller;
  const last = firstUniverse + universes - 1;
  return {
    sentence: `${before ? 'Changed' : 'Added'} the controller ${machine.name}`,
    changes: [before ? changed('machine', before, machine) : added('machine', machine)],
    lines: [
      {
        subject: machine.name,
        before: '',
        after: `universes ${firstUniverse} to ${last}, ${outputs} outputs of ${channelsPerOutput} channels`,
      },
    ],
  };
}
