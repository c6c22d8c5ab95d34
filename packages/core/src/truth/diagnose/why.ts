/** Why? in full: the path with its first break, the likeliest cause with its repair, the others, and the one question. */
import { SURE_WORDS, sightingKey, type SuspectReport, type WhyReport } from '../known';
import type { Subject } from '../../show/records';
import { bestQuestion, type Asked } from './ask';
import { weightOf, type Fact } from './fact';
import { isTooEarly } from './heard';
import { judge, saysOf, surenessOf, type Judgement, type Suspect } from './judge';
import { narrow } from './narrow';
import { pathOf } from './path';
import type { PathStep } from './pathStep';
import { groundOf, sceneOf, type Scene, type Whole } from './scene';
import { capital, factText, questionText } from './words';

const MOST_TOLD = 6;
const MOST_SENTENCES = 8;

function tell({ names }: Scene, { planned, seen }: Judgement) {
  const now = (fact: Fact) => `${factText(fact, seen.get(fact), names)}.`;
  return ({ cause, deviation, share, explains, leaves, contradicted }: Suspect): SuspectReport => ({
    cause,
    about: deviation.about,
    says: deviation.says,
    share,
    explains: explains.slice(0, MOST_SENTENCES).map(now),
    against: [
      ...contradicted.map((fact) => `It would be otherwise: ${factText(fact, planned.get(fact), names)}.`),
      ...leaves.map((fact) => `Not explained by it: ${now(fact)}`),
    ].slice(0, MOST_SENTENCES),
    repair: deviation.repair.says,
    act: deviation.repair.act,
  });
}

export function why(about: Subject, whole: Whole, clock: () => number): WhyReport {
  const began = clock();
  const scene = sceneOf(groundOf(whole), about);
  const path = pathOf(scene, whole);
  const early = isTooEarly(whole.heard);
  const judgement = judge(narrow(scene));
  const { together, amiss } = judgement;
  const suspects = early ? [] : judgement.suspects;
  const first = together.length > 0 && !early ? together : suspects.slice(0, 1);
  const rest = suspects.filter((one) => !first.some(({ deviation }) => deviation === one.deviation));
  const proven = path.length > 0 && path.every(({ state }) => state === 'fine');
  const asked = early ? undefined : questionOf(scene, judgement);
  const sure = early ? 'not known' : sureOf(judgement, proven);
  // From the sender on, as the light goes.
  const broken = path.map(({ state }) => state).lastIndexOf('broken');
  const sentence = (): string => {
    if (early) return 'Taxiarch has just begun to listen: what is missing may still come.';
    if (amiss.length === 0) return plannedSentence(path, proven);
    if (sure === 'not known' || sure === 'as planned') return unexplained(scene, judgement, asked);
    return (
      SURE_WORDS[sure] +
      (together.length > 0 ? together.map(({ deviation }) => deviation.says).join(' And: ') : saysOf(suspects))
    );
  };
  return {
    about,
    sentence: sentence(),
    sure,
    path,
    broken: broken < 0 || early ? null : broken,
    suspects: [...first, ...rest].slice(0, MOST_TOLD).map(tell(scene, judgement)),
    together: early ? 0 : together.length,
    ...(asked !== undefined && {
      question: { about: asked.about, question: asked.question, text: questionText(asked, scene.names) },
    }),
    took: clock() - began,
  };
}

function sureOf({ amiss, suspects, together, other }: Judgement, proven: boolean): WhyReport['sure'] {
  if (amiss.length === 0) return proven ? 'as planned' : 'not known';
  return suspects.length > 0 && !other ? surenessOf(suspects, together) : 'not known';
}

/** What tells causes apart; where all is as planned as far as can be told, the lamp itself is what nobody knows. */
function questionOf(scene: Scene, { suspects, together, amiss }: Judgement): Asked | undefined {
  const { near, seen } = scene;
  const lit: Asked = { about: { kind: 'lamp', id: near.subject.id, part: '' }, question: 'lit' };
  const unseen = near.subject.kind === 'lamp' && !seen.answers.has(sightingKey(lit.about, lit.question));
  if (amiss.length === 0) return unseen ? lit : undefined;
  return together.length > 0 ? undefined : bestQuestion(suspects, scene);
}

/** Where nothing differs. */
function plannedSentence(path: readonly PathStep[], proven: boolean): string {
  if (path.length === 0) return 'Nothing of this is planned to be heard or to leave a port.';
  if (proven) return 'All is as planned, as far as it was heard, said or seen.';
  const broken = path.find(({ state }) => state === 'broken');
  return broken
    ? `What is heard and said is as planned, and yet the way breaks. ${broken.name}: ${broken.now}.`
    : 'What is heard and said is as planned. At what is open below nobody has looked yet.';
}

const MOST_KNOWN = 3;

function subjectName({ kind, id, part }: Subject, { names }: Scene): string {
  if (kind === 'universe' || kind === 'slot' || kind === 'stream') return `Universe ${id}`;
  return kind === 'port' ? names.port(id, Number(part)) : names.of(id);
}

/** What is said where no cause explains enough: what is known, and what to look at next. */
function unexplained(scene: Scene, { amiss, seen }: Judgement, asked: Asked | undefined): string {
  const known = [...amiss]
    .sort((a, b) => weightOf(b) - weightOf(a))
    .slice(0, MOST_KNOWN)
    .map((fact) => factText(fact, seen.get(fact), scene.names));
  const next = asked ? ` Next question: ${questionText(asked, scene.names)}` : '';
  return `${capital(subjectName(scene.near.subject, scene))} is not as planned. Not explained yet. What is known: ${known.join('; ')}.${next}`;
}
