/** Steps of a path at the lamp: the lamp itself, and its slots. */
import { formatAddress, wireKey } from '../../base/address';
import { sightingKey, spell } from '../known';
import { lastChannel, type PatchedLamp, type Span } from '../../rig/patch';
import type { Subject } from '../../show/records';
import { step, type Evidence, type PathStep, type Standing } from './pathStep';
import type { Scene, Whole } from './scene';
import { askedLamps } from './asked';
import { sightingsNow, type SeenNow } from './sightings';

/** What people saw of a lamp: that it does what it should, or that it lights. */
function lampStep(
  about: Subject,
  name: string,
  planned: string,
  seen: ReadonlyMap<string, SeenNow>,
  now: number,
): PathStep {
  const [right, lit] = ['right', 'lit'].map((question) => seen.get(sightingKey(about, question)));
  const last = right?.changed.length === 0 ? right : lit?.changed.length === 0 ? lit : (right ?? lit);
  if (!last) return step(about, 'lamp', name, planned, ['open', 'not known', 'nobody has looked']);
  const { by, at, changed, answer } = last;
  const evidence = [`${by} looked${at === null ? '' : ` ${spell(now - at)} ago`}.`];
  if (changed.length > 0)
    return step(
      about,
      'lamp',
      name,
      planned,
      ['open', 'not known', 'seen before something changed'],
      [...evidence, `Changed since: ${changed.join(', ')}.`],
    );
  const does = last === right ? 'does what its channels say' : 'lights';
  const standing: Standing =
    answer === 'yes' ? ['fine', 'seen', `it ${does}`] : ['broken', 'seen', `it is not so that it ${does}`];
  return step(about, 'lamp', name, planned, standing, evidence);
}

/** What a lamp answered when it was asked lately: that it stands as planned, or how otherwise. */
function saidStep(about: Subject, name: string, planned: string, { roll, heard }: Whole): PathStep[] {
  const row = roll?.rows.find(({ lampId }) => lampId === about.id);
  const lately = roll && askedLamps(roll, heard.at).asked.has(about.id);
  if (!row || !lately) return [];
  const { seen, state, says, because } = row;
  const evidence = seen ? [`It said so ${spell(heard.at - seen.at)} ago; known because ${because}.`] : [];
  const standing: Standing = state === 'as planned' ? ['fine', 'said', 'answers as planned'] : ['broken', 'said', says];
  return [step(about, 'lamp', `${name}, asked`, planned, standing, evidence)];
}

/** The slots of a lamp or the one that is asked about, and whether what is heard reaches so far. */
function slotStep(span: Span, scene: Scene, evidence: Evidence): PathStep {
  const { universe, channel, patched } = span;
  const last = lastChannel(span);
  const planned = scene.records.universe.find(({ number }) => number === universe);
  const key = planned && wireKey({ protocol: planned.protocol, number: planned.wire });
  const heard = scene.seen.streams.filter((one) => one.key === key && one.levels);
  const standing = ((): Standing => {
    if (heard.length === 0) return ['open', 'not known', 'no levels are heard'];
    const short = heard.filter(({ slots }) => slots < last);
    return short.length === 0
      ? ['fine', 'heard', 'packets carry them']
      : [
          'broken',
          'heard',
          `packets of ${short.map(({ sender }) => scene.names.of(sender)).join(' and ')} end at ${short[0]!.slots}`,
        ];
  })();
  return step(
    { kind: 'slot', id: String(universe), part: String(channel) },
    'slot',
    channel === last ? `Slot ${universe}/${channel}` : `Slots ${universe}/${channel}–${last}`,
    `of ${patched.lamp.name}, ${patched.lamp.mode}`,
    standing,
    heard.flatMap(({ sender, key: on }) => evidence.stream(sender, on)).slice(0, 1),
  );
}

/** A lamp to which no slot belongs: nothing can be sent to it. */
const placeless = ({ lamp, type }: PatchedLamp): PathStep =>
  step({ kind: 'lamp', id: lamp.id, part: '' }, 'slot', 'Its slots', 'none', [
    'broken',
    'worked out',
    type.unknown ? `its type “${type.name}” is not known yet` : 'it has no address',
  ]);

export function lampSteps(scene: Scene, whole: Whole, evidence: Evidence): PathStep[] {
  const { kind, part } = scene.near.subject;
  if (kind !== 'lamp' && kind !== 'slot') return [];
  const slot = Number(part);
  const seen = sightingsNow(whole.records, whole.patch);
  return scene.near.lamps.flatMap((id) => {
    const patched = whole.patch.lamp(id);
    if (!patched) return [];
    const { lamp } = patched;
    const spans = patched.spans.filter(
      (span) =>
        kind === 'lamp' ||
        (span.universe === Number(scene.near.subject.id) && span.channel <= slot && slot <= lastChannel(span)),
    );
    return [
      lampStep(
        { kind: 'lamp', id, part: '' },
        `${lamp.number} ${lamp.name}`,
        `${formatAddress(lamp)}, ${lamp.mode}`,
        seen,
        whole.heard.at,
      ),
      ...saidStep(
        { kind: 'lamp', id, part: '' },
        `${lamp.number} ${lamp.name}`,
        `${formatAddress(lamp)}, ${lamp.mode}`,
        whole,
      ),
      ...spans.map((span) => slotStep(span, scene, evidence)),
      ...(kind === 'lamp' && spans.length === 0 ? [placeless(patched)] : []),
    ];
  });
}
