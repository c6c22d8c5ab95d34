/** What a person does to runs of pixels and their controllers, with where everything comes to lie. */
import { formatAddress } from '../../base/address';
import { layRuns } from '../pixel';
import type { Machine, PixelRun } from '../../show/records';
import { missingUniverses, type Rig } from './rig';
import { added, changed, countOf, type Plan, recordPlan, removed } from '../../show/edit';
import type { Result } from '../../base/result';

/** Writes a run; lines say where it and the runs that follow it come to lie. */
export function putRun({ records }: Rig, run: PixelRun, before: PixelRun | undefined, newId: () => string): Plan {
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
  lines: [{ subject: `${run.number} ${run.name}`, before: countOf(run.count, 'pixel'), after: '' }],
});

/** Writes a pixel controller, new if there was none before. */
export const putController = (before: Machine | undefined, machine: Machine): Result<Plan> =>
  recordPlan('machine', before, machine, {
    sentence: `${before ? 'Changed' : 'Added'} the controller ${machine.name}`,
    tellers: {
      controller: (limits) =>
        limits
          ? `universes ${limits.firstUniverse} to ${limits.firstUniverse + limits.universes - 1}, ${countOf(limits.outputs, 'output')} of ${countOf(limits.channelsPerOutput, 'channel')}`
          : '',
      interfaces: (interfaces) =>
        interfaces.flatMap(({ addresses }) => addresses.map(({ address }) => address)).join(', '),
    },
  });
