/** The world from which a time line begins: as planned, as it is now, or as it was kept as good. */
import { worldAsHeard, type DiagnosisHeard } from '../diagnose';
import type { MachineEntry } from '../../network/node';
import type { Patch } from '../../rig/patch';
import type { Good, ShowRecords } from '../../show/records';
import { plannedWorld, withNode, withSender, withStreams, type World } from '../simulate';
import type { WhatIfWorld } from './event';

export const WHAT_IF_FROM = ['plan', 'now', 'good'] as const;
export type WhatIfFrom = (typeof WHAT_IF_FROM)[number];

const asWhatIf = (world: World): WhatIfWorld => ({
  ...world,
  lossy: new Map(),
  darkPlaces: new Set(),
  unsynced: new Set(),
});

export interface Based {
  readonly world: WhatIfWorld;
  readonly assumes: readonly string[];
}

const ALWAYS = [
  'Looks stand still: senders repeat what they send about once a second.',
  'Nodes take 8 s to start, desks 30 s.',
  'What a lamp does without DMX is its own; here it counts as dark.',
];

export const fromPlan = (records: ShowRecords, patch: Patch): Based => ({
  world: asWhatIf(plannedWorld(records, patch, [])),
  assumes: ['Everything is as planned.', ...ALWAYS],
});

/** Machines and streams that were not well when it was kept are as they were then. */
export function fromGood(records: ShowRecords, patch: Patch, { states, at }: Good): Based {
  const says = new Map(states.map((one) => [one.about, one.says]));
  const planned = plannedWorld(records, patch, []);
  const gone = records.machine.filter(({ id }) => says.get(`machine ${id}`) === 'missing');
  const without = gone.reduce<World>(
    (now, { id }) =>
      withSender(
        withNode(now, id, () => ({ powered: false })),
        id,
        () => ({ on: false }),
      ),
    planned,
  );
  const silent = planned.senders.reduce<World>(
    (now, { id }) =>
      withStreams(now, id, ({ universe, on }) => ({ on: on && says.get(`universe ${universe}`) !== 'silent' })),
    without,
  );
  return {
    world: asWhatIf(silent),
    assumes: [
      `All that was not missing or silent when it was kept (${at.slice(0, 16).replace('T', ' ')}) is as planned.`,
      ...ALWAYS,
    ],
  };
}

/** Who is heard sends; nodes are set as they say; who does not answer is off. */
export function fromNow(
  records: ShowRecords,
  patch: Patch,
  heard: DiagnosisHeard,
  entries: readonly MachineEntry[],
): Based {
  const { world, unheard } = worldAsHeard({ records, patch, heard, entries });
  return {
    world: asWhatIf(world),
    assumes: [
      ...(unheard.length > 0 ? [`Not heard from here, and taken as planned: ${unheard.join(', ')}.`] : []),
      'What nodes cannot say of themselves (what they do without signal, at the start) is as planned.',
      ...ALWAYS,
    ],
  };
}
