/** Practise: a night's faults planted in the stand-ins, a clock, hints, what was found, and everybody's marks. */
import { useAct } from '@/forms/useAct';
import { Link } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { PracticeReply } from '@taxiarch/core/whole/contract';
import {
  HARDNESS,
  LAST_NIGHT,
  MOST_FAULTS,
  type Hardness,
  type PracticeEnd,
  type PracticeNow,
} from '@taxiarch/core/truth/practise';
import type { Subject } from '@taxiarch/core/show/records';
import { whyHref } from '@/data/diagnosis';
import { wholeFrom } from '@/data/numbers';
import { beginPractice, endPractice, giveHint, nameFault, usePractice } from '@/data/practice';
import { useShow } from '@/data/show';
import {
  Button,
  Choice,
  Field,
  Notice,
  Pick,
  Screen,
  Section,
  Sentence,
  StateWord,
  Text,
  count,
  dayAndTime,
  stopwatch,
  PageShape,
} from '@/ui';

const MANY = Array.from({ length: MOST_FAULTS }, (_, i) => ({ value: String(i + 1), label: String(i + 1) }));
const HARD = HARDNESS.map((value) => ({ value, label: value }));

export function PractisePage() {
  const practice = usePractice();
  if (!practice) return <PageShape />;
  if (practice.running) return <Running practice={practice} running={practice.running} />;
  return <Begin practice={practice} />;
}

function Begin({ practice: { cannot, last, marks } }: { practice: PracticeReply }) {
  const [many, setMany] = useState(2);
  const [hard, setHard] = useState<Hardness>('easy');
  const [number, setNumber] = useState('');
  const { trouble, act } = useAct();
  const night = wholeFrom(number);
  const wrong = number !== '' && (night === undefined || night < 1 || night > LAST_NIGHT);
  const begin = () => void act(() => beginPractice({ count: many, hard, ...(number !== '' && { number: night }) }));
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Text kind="label">Practise</Text>
          <Sentence>{last ? endSentence(last) : 'Find what is wrong with the stand-ins, against the clock.'}</Sentence>
        </View>
      }
      acts={<Button label="Begin" look="main" grow disabled={cannot !== '' || wrong} onPress={begin} />}
    >
      {cannot !== '' && <Notice state="look at">{cannot}</Notice>}
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {last && <Ended end={last} />}
      <Section title="A night">
        <Text kind="small">
          Faults are planted in the stand-ins, never in a real network. Find each with whatever Taxiarch tells, then
          mend it or say what it is.
        </Text>
        <Pick
          label="How many things are wrong"
          options={MANY}
          value={String(many)}
          onChange={(value) => setMany(Number(value))}
        />
        <Text kind="label">How hard</Text>
        <Choice label="How hard" options={HARD} value={hard} onChange={setHard} />
        <Field
          label={`Number of the night, 1–${LAST_NIGHT}; empty for one at random`}
          mono
          value={number}
          onChange={setNumber}
          fault={wrong ? `A whole number from 1 to ${LAST_NIGHT}.` : undefined}
        />
      </Section>
      <Marks marks={marks} />
    </Screen>
  );
}

const endSentence = ({ mark: { found, count: all, seconds, points } }: PracticeEnd): string =>
  `${found} of ${count(all, 'fault')} found in ${stopwatch(seconds)}: ${count(points, 'point')}.`;

function Ended({ end: { mark, faults } }: { end: PracticeEnd }) {
  return (
    <Section title={`Night ${mark.number}, ${mark.hard}: what was wrong`}>
      <Text kind="small">
        {count(mark.hints, 'hint')}, {count(mark.wrong, 'wrong name')}. The stand-ins are as they were shipped again.
      </Text>
      <View role="list" aria-label="What was wrong">
        {faults.map(({ says, how, after, screens, about, hints }) => (
          <View key={says} role="listitem" className="gap-1 border-b border-line py-2">
            <View className="flex-row items-start gap-2">
              <Text kind="strong" className="flex-1">
                {says}
              </Text>
              <StateWord state={how === 'not found' ? 'open' : 'done'} />
            </View>
            <Text kind="small">
              {after === null ? 'Not found' : `${how === 'named' ? 'Named' : 'Mended'} after ${stopwatch(after)}`}
              {hints > 0 && `, ${count(hints, 'hint')}`}
            </Text>
            {screens.length > 0 && <Text kind="small">Looked at: {screens.join(' → ')}</Text>}
            <Link href={whyHref(about)} asChild>
              <Text kind="small" tone="press" className="py-1">
                Where it would be told: Why? there
              </Text>
            </Link>
          </View>
        ))}
      </View>
    </Section>
  );
}

function Marks({ marks }: { marks: PracticeReply['marks'] }) {
  const people = [...new Set(marks.map(({ by }) => by))];
  if (people.length === 0) return null;
  return (
    <Section title="Marks">
      {people.map((person) => (
        <View key={person} className="gap-1 border-b border-line py-2">
          <Text kind="strong">{person}</Text>
          {marks
            .filter(({ by }) => by === person)
            .slice(0, 10)
            .map((mark) => (
              <Text key={mark.at} kind="small">
                {dayAndTime(mark.at)}: night {mark.number}, {mark.hard}, {mark.found} of {mark.count} in{' '}
                {stopwatch(mark.seconds)}, {count(mark.points, 'point')}
              </Text>
            ))}
        </View>
      ))}
    </Section>
  );
}

const NOT_PLANNED = 'somebody';

function Running({ practice: { causes }, running }: { practice: PracticeReply; running: PracticeNow }) {
  const { records } = useShow();
  const [where, setWhere] = useState('');
  const [cause, setCause] = useState('');
  const [said, setSaid] = useState('');
  const { trouble, act } = useAct();
  const places = [
    { value: '', label: 'Choose where' },
    ...records.machine.map(({ id, name }) => ({ value: id, label: name })),
    { value: NOT_PLANNED, label: 'Somebody who is not planned' },
  ];
  const subject: Subject = { kind: 'machine', id: where === NOT_PLANNED ? '' : where, part: '' };
  const say = () =>
    void act(async () => {
      const right = await nameFault(subject, cause);
      setSaid(right ? 'That is right.' : 'That is not what is wrong.');
      if (right) setCause('');
    });
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Text kind="label">
            Practise: night {running.number}, {running.hard}
          </Text>
          <Sentence>
            {`${running.found.length} of ${count(running.count, 'thing')} found that ${running.count === 1 ? 'is' : 'are'} wrong.`}
          </Sentence>
        </View>
      }
      acts={
        <>
          <Button label="Give a hint" grow onPress={() => void act(giveHint)} />
          <Button label="End it" grow onPress={() => void act(endPractice)} />
        </>
      }
    >
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <Section title="Say what is wrong">
        <Pick label="Where" options={places} value={where} onChange={setWhere} />
        <Pick
          label="What"
          options={[
            { value: '', label: 'Choose what' },
            ...causes.map(({ id, title }) => ({ value: id, label: title })),
          ]}
          value={cause}
          onChange={setCause}
        />
        <View className="flex-row">
          <Button label="This is it" look="main" disabled={where === '' || cause === ''} onPress={say} />
        </View>
        {said !== '' && <Text kind="strong">{said}</Text>}
        <Text kind="small">
          What is mended counts too: by a push, or by a hand at the stand-ins. {count(running.wrong, 'wrong name')}{' '}
          until now.
        </Text>
      </Section>
      {running.hints.length > 0 && (
        <Section title="Hints">
          {running.hints.map((hint, i) => (
            <Text key={`${i} ${hint}`}>{hint}</Text>
          ))}
        </Section>
      )}
      {running.found.length > 0 && (
        <Section title="Found">
          {running.found.map(({ says, how, after }) => (
            <Text key={says}>
              {says} {how === 'named' ? 'Named' : 'Mended'} after {stopwatch(after)}.
            </Text>
          ))}
        </Section>
      )}
    </Screen>
  );
}
