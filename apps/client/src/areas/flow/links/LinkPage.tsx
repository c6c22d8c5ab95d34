/** One link: the doctor's list worked through live, and the link itself. */
import { sendersOf } from '@taxiarch/core/network/flow';
import { Link as Anchor, useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import { doctor, type DoctorLine, linkedUniverses, shownAs } from '@taxiarch/core/truth/link';
import type { Seen } from '@taxiarch/core/truth/known';
import type { Link } from '@taxiarch/core/show/records';
import { useExchange } from '@/data/exchange';
import { useLive } from '@/data/live';
import { useStandIns } from '@/data/machines';
import { saw } from '@/data/sightings';
import { whyHref } from '@/data/diagnosis';
import { propose, useShow } from '@/data/show';
import {
  Button,
  KnownMark,
  Notice,
  Screen,
  Section,
  Sentence,
  StateWord,
  Text,
  count,
  dayAndTime,
  WhyLink,
  Missing,
} from '@/ui';
import { AtTheOtherEnd } from './AtTheOtherEnd';
import { LinkEditor } from './LinkEditor';

export function LinkPage() {
  const { link: id = '' } = useLocalSearchParams<{ link: string }>();
  const { records, loaded } = useShow();
  const link = records.link.find((one) => one.id === id);
  if (id === 'new') return <LinkEditor link={undefined} />;
  if (link) return <Looked key={id} link={link} />;
  return <Missing loaded={loaded} what="This link" list="/flow/links" act="All links" />;
}

const WORDS = { fine: 'fine', 'must fix': 'must fix', planned: 'planned', ask: 'open' } as const;

function Looked({ link }: { link: Link }) {
  const { edit } = useLocalSearchParams<{ edit?: string }>();
  const router = useRouter();
  const { records } = useShow();
  const live = useLive();
  const standIns = useStandIns().data;
  const programs = useExchange(false).data?.citp?.peers;
  const lines = live ? doctor(link, records, live, programs) : [];
  const worst = lines.find(({ state }) => state === 'must fix');
  const wrong = lines.filter(({ state }) => state === 'must fix').length;
  const asked = lines.filter(({ state }) => state === 'ask').length;
  const sender = sendersOf(records.machine).find(({ id }) => id === link.senderId);
  const picture = standIns?.find(({ kind }) => kind === 'visualiser')?.visualiser?.page;
  if (edit) return <LinkEditor link={link} />;
  return (
    <Screen
      sentence={
        <Sentence>
          {lines.length === 0
            ? 'Looking…'
            : wrong > 0
              ? `${link.name}: ${count(wrong, 'thing')} to mend.`
              : asked > 0
                ? `${link.name}: nothing is wrong that can be heard; ${count(asked, 'question')} open.`
                : `${link.name}: heard, said or seen to be fine.`}
        </Sentence>
      }
      acts={
        <>
          <WhyLink href={whyHref({ kind: 'link', id: link.id, part: '' })} about={link.name} />
          <Button label="Change" grow onPress={() => router.push(`/flow/links/${link.id}?edit=yes`)} />
          {picture && <Button label="Its picture" grow onPress={() => window.open(picture, '_blank', 'noopener')} />}
        </>
      }
    >
      {worst && (
        <Notice state="must fix">
          {worst.says} {worst.mend}
        </Notice>
      )}
      <View role="list" aria-label="The doctor’s list">
        {lines.map((line) => (
          <Line key={line.name} line={line} link={link} />
        ))}
      </View>
      {standIns && wrong > 0 && (
        <Anchor href={'/wire/stand-ins'}>
          <Text tone="press">The visualiser is a stand-in: its settings are turned on the bench</Text>
        </Anchor>
      )}
      {sender && (
        <Section title="Universes">
          {linkedUniverses(link, sender, records.universe).map(({ universe, sent, heard }) => (
            <Text key={universe} kind="small" tone={sent && formatWire(sent) === formatWire(heard) ? 'soft' : 'fault'}>
              {universe}: sent as {sent ? `${formatWire(sent)}, shown as ${shownAs(sent, link.senderBase)}` : 'nothing'}
              ; received as {formatWire(heard)}, shown as {shownAs(heard, link.receiverBase)}
            </Text>
          ))}
        </Section>
      )}
    </Screen>
  );
}

/** Who saw it, and when. */
const seenText = ({ by, at, changed }: Seen): string =>
  [
    `${by || 'Somebody'}, ${at === null ? 'nobody knows when' : dayAndTime(at)}.`,
    changed.length > 0 ? `Since then changed: ${changed.join(', ')}.` : '',
  ]
    .filter(Boolean)
    .join(' ');

function Line({ line, link }: { line: DoctorLine; link: Link }) {
  const [why, setWhy] = useState('');
  const { name, title, state, known, says, mend, repair, seen } = line;
  const router = useRouter();
  const { patch } = useShow();
  const lamp = link.lines
    .flatMap(({ from, count: many }) => Array.from({ length: many }, (_, i) => patch.universe(from + i)))
    .find((spans) => spans.length > 0)?.[0]?.patched.lamp.id;
  const answer = (says: 'yes' | 'no') =>
    void saw({ kind: 'link', id: link.id, part: '' }, name, says, `${link.name}, ${title}`).catch((error: Error) =>
      setWhy(error.message),
    );
  return (
    <View role="listitem" className="gap-1 border-b border-line py-3">
      <View className="flex-row items-center gap-3">
        <Text kind="strong" className="flex-1">
          {title}
        </Text>
        <StateWord state={WORDS[state]} />
      </View>
      <Text kind="small" tone={state === 'fine' ? 'soft' : 'text'}>
        {says}
      </Text>
      <KnownMark known={known} of={title} evidence={seen ? [seenText(seen)] : []} />
      {mend !== '' && <Text>{mend}</Text>}
      {why !== '' && <Notice state="must fix">{why}</Notice>}
      {repair && (
        <Button
          label={repair.label}
          onPress={() =>
            void propose(repair.plan.sentence, repair.plan.changes).catch((error: Error) => setWhy(error.message))
          }
        />
      )}
      {(name === 'lamps' || name === 'arrives') && <AtTheOtherEnd link={link} line={name} lamp={lamp} />}
      {(state === 'ask' || seen) && (
        <View className="flex-row flex-wrap gap-2">
          {name === 'arrives' && lamp && (
            <Button label="Light one" onPress={() => router.navigate(`/prove?lamp=${lamp}`)} />
          )}
          <Button label={`I looked: it is well, ${title}`} short="I looked: it is well" onPress={() => answer('yes')} />
          <Button
            label={`I looked: it is not so, ${title}`}
            short="It is not so"
            look="bare"
            onPress={() => answer('no')}
          />
        </View>
      )}
    </View>
  );
}
