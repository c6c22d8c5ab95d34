/** How the rig stands, in a sentence that leads to what it counts. */
import { Fragment, useMemo } from 'react';
import type { ShowRecords } from '@taxiarch/core/show/records';
import { flowOf, viewOf } from '@taxiarch/core/truth/check';
import { useFindings, type Show } from '@/data/show';
import { Sentence, SentenceLink, count } from '@/ui';

/** “420 lamps and 156 pixels on 13 universes. No addresses collide.” */
export function RigSentence({ records, patch, loaded }: Show) {
  const findings = useFindings();
  const open = useMemo(() => openEnds(records), [records]);
  const { lamp, run } = records;
  if (!loaded) return <Sentence>Reading the show…</Sentence>;
  const pixels = run.reduce((sum, one) => sum + one.count, 0);
  if (lamp.length + run.length === 0) return <Sentence>No lamps yet. Add some, or import a file.</Sentence>;
  return (
    <Sentence>
      {count(lamp.length, 'lamp')}
      {pixels > 0 && ` and ${count(pixels, 'pixel')}`} on{' '}
      <SentenceLink href="/rig/universes">{count(patch.universes().length, 'universe')}</SentenceLink>.{' '}
      {findings.length === 0 ? (
        'No addresses collide.'
      ) : (
        <SentenceLink href="/rig/findings">{`${count(findings.length, 'fault')} to mend.`}</SentenceLink>
      )}
      {open.map(({ universe, says }) => (
        <Fragment key={says}>
          {' '}
          <SentenceLink href={`/rig/universes/${universe}?view=way`}>{says}</SentenceLink>
        </Fragment>
      ))}
    </Sentence>
  );
}

/** What the universes with lamps still lack, each with the first of those that lack it. */
function openEnds(records: ShowRecords): { universe: number; says: string }[] {
  const { load, senders, inputs, routed, carriers } = flowOf(viewOf(records));
  const planned = new Set(records.universe.map(({ number }) => number));
  const used = [...load.keys()].filter((number) => planned.has(number)).sort((a, b) => a - b);
  const notSent = used.filter((number) => !senders.has(number) && !inputs.has(number) && !routed.has(number));
  const notCarried = used.filter((number) => !carriers.has(number));
  const told = (numbers: readonly number[], one: string, many: string) =>
    numbers[0] === undefined
      ? []
      : [{ universe: numbers[0], says: `${count(numbers.length, 'universe')} ${numbers.length === 1 ? one : many}.` }];
  return [
    ...told(notSent, 'is sent by nobody', 'are sent by nobody'),
    ...told(notCarried, 'leaves nowhere', 'leave nowhere'),
  ];
}
