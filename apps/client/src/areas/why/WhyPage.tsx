/** Why? One sentence, its repair, the question that tells most, the path, and what else it could be. */
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { SuspectReport, WhyReport } from '@taxiarch/core/truth/known';
import { SUBJECTS, type Subject } from '@taxiarch/core/show/records';
import { lookAgain, useWhy } from '@/data/diagnosis';
import { saw } from '@/data/sightings';
import { useShow } from '@/data/show';
import {
  Missing,
  Button,
  Empty,
  Fold,
  Notice,
  Screen,
  Section,
  Sentence,
  StateWord,
  Text,
  type StateName,
  PageShape,
} from '@/ui';
import { ThisIsIt } from '@/areas/practise/ThisIsIt';
import { PathLine } from './PathLine';
import { Repair } from './Repair';

/** What it is about, as a person calls it. */
/** What it is called; undefined when the show has come and it is not in it. */
function useNameOf({ kind, id, part }: Subject): string | undefined {
  const { records, loaded } = useShow();
  const isMachine = kind === 'machine' || kind === 'port' || kind === 'interface';
  if (loaded && isMachine && !records.machine.some((one) => one.id === id)) return undefined;
  const machine = records.machine.find((one) => one.id === id)?.name ?? id;
  switch (kind) {
    case 'lamp': {
      const lamp = records.lamp.find((one) => one.id === id);
      return lamp ? `Lamp ${lamp.number} ${lamp.name}` : loaded ? undefined : id;
    }
    case 'port': {
      const controller = records.machine.find((one) => one.id === id)?.controller;
      return controller
        ? `${machine}, universe ${controller.firstUniverse + Number(part) - 1}`
        : `${machine}, port ${part}`;
    }
    case 'slot':
      return `Slot ${id}/${part}`;
    case 'link':
      return records.link.find((one) => one.id === id)?.name ?? (loaded ? undefined : id);
    case 'interface':
      return `Interface of ${machine}`;
    case 'machine':
      return machine;
    default:
      return `Universe ${id}`;
  }
}

const SURE_WORDS: Readonly<Record<WhyReport['sure'], StateName>> = {
  'as planned': 'as planned',
  certain: 'must fix',
  likely: 'must fix',
  open: 'look at',
  'not known': 'open',
};

export function WhyPage() {
  const { kind = 'lamp', id = '', part = '' } = useLocalSearchParams<{ kind: string; id: string; part: string }>();
  const known = SUBJECTS.find((one) => one === kind);
  return known && id !== '' ? (
    <Told key={`${kind} ${id} ${part}`} about={{ kind: known, id, part }} />
  ) : (
    <Empty act={{ label: 'How things stand', href: '/' }}>
      Open Why? from a lamp, port, universe, machine or link.
    </Empty>
  );
}

function Told({ about }: { about: Subject }) {
  const name = useNameOf(about);
  const { why, trouble } = useWhy(about);
  if (name === undefined) return <Missing loaded what="What you ask about" list="/" act="How things stand" />;
  if (!why) return trouble ? <Empty>{trouble}</Empty> : <PageShape />;
  const { suspects, together, question, path, broken, sure, sentence } = why;
  const first = suspects.slice(0, Math.max(1, together));
  const others = suspects.slice(first.length);
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Text kind="label">Why? {name}</Text>
          <Sentence>{sentence}</Sentence>
          <View className="flex-row">
            <StateWord state={SURE_WORDS[sure]} />
          </View>
        </View>
      }
      foot={question ? <Asked question={question} /> : undefined}
    >
      {first.map((one) => (
        <Section key={one.says} title={together > 1 ? one.says : 'What to do'}>
          <Repair says={one.repair} act={one.act} />
          <ThisIsIt suspect={one} />
          <Fold title="What speaks for it and against it" of={one.says}>
            <Speaks suspect={one} />
          </Fold>
        </Section>
      ))}
      <Section title="The path, as the light goes">
        {path.length === 0 ? (
          <Text kind="soft">Nothing of it is planned to pass.</Text>
        ) : (
          <PathLine path={path} broken={broken} />
        )}
      </Section>
      {others.length > 0 && (
        <Section title="What else it could be">
          {others.map((one) => (
            <Other key={one.says} suspect={one} />
          ))}
        </Section>
      )}
    </Screen>
  );
}

const shareText = (share: number): string =>
  share >= 0.9 ? 'almost surely' : share >= 0.5 ? 'likely' : share >= 0.15 ? 'possible' : 'unlikely';

function Other({ suspect }: { suspect: SuspectReport }) {
  return (
    <View className="gap-1 border-b border-line py-2">
      <Text>{suspect.says}</Text>
      <Text kind="small">{shareText(suspect.share)}</Text>
      <ThisIsIt suspect={suspect} />
      <Fold title="For and against" of={suspect.says}>
        <Speaks suspect={suspect} />
      </Fold>
    </View>
  );
}

function Speaks({ suspect: { explains, against } }: { suspect: SuspectReport }) {
  return (
    <View className="gap-1">
      {explains.map((sentence) => (
        <Text key={sentence} kind="small" tone="text">
          For: {sentence}
        </Text>
      ))}
      {against.map((sentence) => (
        <Text key={sentence} kind="small">
          Against: {sentence}
        </Text>
      ))}
      {against.length === 0 && <Text kind="small">Nothing speaks against it.</Text>}
    </View>
  );
}

function Asked({ question: { about, question, text } }: { question: NonNullable<WhyReport['question']> }) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const answer = (says: 'yes' | 'no') =>
    void saw(about, question, says, text).then(lookAgain, (error: Error) => setTrouble(error.message));
  return (
    <View role="group" aria-label="A question" className="gap-2">
      <Text kind="strong">{text}</Text>
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <View className="flex-row gap-2">
        {about.kind === 'lamp' && (
          <Button label="Light it" grow onPress={() => router.navigate(`/prove?lamp=${about.id}`)} />
        )}
        <Button label="Yes" look="main" grow onPress={() => answer('yes')} />
        <Button label="No" look="main" grow onPress={() => answer('no')} />
      </View>
    </View>
  );
}
