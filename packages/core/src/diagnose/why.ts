/** Why? in full: the path with its first break, the likeliest cause with its repair, the others, and the one question. */
import type { SuspectReport, WhyReport } from '../known';
import type { MachineEntry } from '../node';
import type { Patch } from '../patch';
import type { ShowRecords, Subject } from '../records';
import { plannedWorld } from '../simulate';
import { bestQuestion } from './ask';
import type { Scene } from './cause';
import { factText, questionText } from './words';
import { observedNow, type DiagnosisHeard } from './heard';
import { judge, type Suspect } from './judge';
import { NONE } from './facts';
import { narrow } from './narrow';
import { nearOf } from './near';
import { pathOf } from './path';

/** A cause that is at least so likely is certain; below that it is likely as long as it is twice the next. */
const CERTAIN = 0.9;
const LIKELY = 0.5;
const MOST_TOLD = 6;
const MOST_SENTENCES = 8;

function sceneOf(
  about: Subject,
  records: ShowRecords,
  patch: Patch,
  heard: DiagnosisHeard,
  entries: readonly MachineEntry[],
): Scene {
  const near = nearOf(about, records, patch);
  const names = new Map(records.machine.map(({ id, name }) => [id, name]));
  const lamps = new Map(records.lamp.map(({ id, number }) => [id, `lamp ${number}`]));
  const world = plannedWorld(records, patch, near.lamps);
  const seen = observedNow(records, heard, entries);
  return {
    records,
    near: { ...near, ...(seen.settling && { settling: seen.settling }) },
    world,
    whole: world,
    seen,
    nameOf: (id) => names.get(id) ?? lamps.get(id) ?? id,
  };
}

const subjectOf = (key: string): Subject => {
  const parts = key.split(' ');
  return { kind: parts[0] as Subject['kind'], id: parts[1]!, part: parts.length > 3 ? parts[2]! : '' };
};

function tell(scene: Scene, planned: ReadonlyMap<string, string>, seen: ReadonlyMap<string, string>) {
  const { nameOf } = scene;
  const now = (fact: string) => `${factText(fact, seen.get(fact) ?? NONE, nameOf)}.`;
  return ({ cause, deviation, share, explains, leaves, contradicted }: Suspect): SuspectReport => ({
    cause,
    about: deviation.about,
    says: deviation.says,
    share,
    explains: explains.slice(0, MOST_SENTENCES).map(now),
    against: [
      ...contradicted.map((fact) => `It would be otherwise: ${factText(fact, planned.get(fact) ?? NONE, nameOf)}.`),
      ...leaves.map((fact) => `Not explained by it: ${now(fact)}`),
    ].slice(0, MOST_SENTENCES),
    repair: deviation.repair.says,
    act: deviation.repair.act,
  });
}

export function why(
  about: Subject,
  records: ShowRecords,
  patch: Patch,
  heard: DiagnosisHeard,
  entries: readonly MachineEntry[],
  clock: () => number,
): WhyReport {
  const began = clock();
  const scene = sceneOf(about, records, patch, heard, entries);
  const path = pathOf(scene, patch);
  const { suspects, together, planned, seen, amiss } = judge(narrow(scene));
  // From the sender on, as the light goes.
  const broken = path.map(({ state }) => state).lastIndexOf('broken');
  const told = tell(scene, planned, seen);
  const rest = suspects.filter((one) => !together.some(({ deviation }) => deviation === one.deviation));
  const first = together.length > 0 ? together : suspects.slice(0, 1);
  const key = together.length > 0 ? undefined : bestQuestion(suspects, scene);
  const open = path.filter(({ state }) => state === 'open');
  const asked = key ?? (amiss.length === 0 ? openQuestion(scene) : undefined);
  const lead = suspects[0];
  const sure: WhyReport['sure'] =
    amiss.length === 0
      ? open.length > 0
        ? 'not known'
        : 'as planned'
      : !lead
        ? 'not known'
        : together.length > 0
          ? 'likely'
          : lead.share >= CERTAIN && lead.contradicted.length === 0 && lead.leaves.length === 0
            ? 'certain'
            : lead.share >= LIKELY
              ? 'likely'
              : 'open';
  return {
    about,
    sentence: sentenceOf(sure, first, amiss.length, path.length, open.length > 0),
    sure,
    path,
    broken: broken < 0 ? null : broken,
    suspects: [...together, ...rest].slice(0, MOST_TOLD).map(told),
    together: together.length,
    ...(asked !== undefined && {
      question: {
        about: subjectOf(asked),
        question: asked.split(' ').at(-1)!,
        text: questionText(asked, scene.nameOf),
      },
    }),
    took: clock() - began,
  };
}

/** Where all is as planned as far as can be told, the lamp itself is what nobody knows. */
function openQuestion({ near, seen }: Scene): string | undefined {
  if (near.subject.kind !== 'lamp') return undefined;
  const key = `lamp ${near.subject.id} lit`;
  return seen.answers.has(key) ? undefined : key;
}

function sentenceOf(
  sure: WhyReport['sure'],
  first: readonly Suspect[],
  amiss: number,
  steps: number,
  open: boolean,
): string {
  if (amiss === 0)
    return steps === 0
      ? 'Nothing of this is planned to be heard or to leave a port.'
      : open
        ? 'As far as can be heard and is said, all is as planned; what is open below nobody has looked at.'
        : 'All is as planned, as far as it was heard, said or seen.';
  if (first.length === 0) return 'Something differs from the plan, and no cause that is known explains it.';
  const says = first.map(({ deviation }) => deviation.says).join(' And: ');
  switch (sure) {
    case 'certain':
      return says;
    case 'likely':
      return `Likely: ${says}`;
    default:
      return `It may be: ${says}`;
  }
}
