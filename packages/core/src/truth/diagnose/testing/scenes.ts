/** Scenes of the demo show in which something is so or so, for tests. */
import { nightFerry } from '../../../whole/demo';
import { Patch } from '../../../rig/patch';
import type { ShowRecords, Subject } from '../../../show/records';
import { answersOf, type Answer } from '../../known';
import { observe, plannedWorld, type Present, type World } from '../../simulate';
import { judge } from '../judge';
import { narrow } from '../narrow';
import { namesOf, sceneOf, type Ground, type Scene } from '../scene';

export const ferry = nightFerry();
export const PRESENT: Present = { here: { addresses: [], lists: null }, polled: true, own: [] };

export const patchOf = (records: ShowRecords): Patch =>
  new Patch(records.lamp, records.type, records.run, records.machine);

export interface Given {
  readonly records?: ShowRecords;
  readonly present?: Present;
  /** What people saw */
  readonly answers?: readonly Answer[];
  /** Lamps that were asked lately, over their cables */
  readonly asked?: readonly string[];
}

export const answer = (about: Subject, question: string, says: Answer['answer']): Answer => ({
  about,
  question,
  answer: says,
});

/** What stands near something, while the world is as `change` makes it. */
export function scene(about: Subject, change: (world: World) => World, given: Given = {}): Scene {
  const { records = ferry, present = PRESENT, answers = [] } = given;
  const asked = given.asked ?? [];
  const patch = patchOf(records);
  const world = (lampIds: readonly string[]) => {
    const planned = plannedWorld(records, patch, lampIds, present);
    return { ...planned, lamps: planned.lamps.map((one) => ({ ...one, asked: asked.includes(one.id) })) };
  };
  const ground: Ground = {
    whole: { records, patch, entries: [] } as unknown as Ground['whole'],
    seen: {
      ...observe(change(world(asked))),
      answers: answersOf(answers),
      settling: new Set(),
      confirmed: new Map(),
      besides: true,
      lateHere: false,
    },
    names: namesOf(records),
    world,
  };
  return sceneOf(ground, about);
}
export const judged = (about: Subject, change: (world: World) => World, given?: Given) =>
  judge(narrow(scene(about, change, given)));
