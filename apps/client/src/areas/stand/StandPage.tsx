/** How things stand: can the doors open, what stands against it by how much light it costs, and what nobody knows yet. */
import { ledger, sendersOf } from '@taxiarch/core/network/flow';
import { Link, useRouter } from 'expo-router';
import type { ComponentProps } from 'react';
import { ScrollView, View } from 'react-native';
import { SURE_WORDS, type StandingReport, type Trouble } from '@taxiarch/core/truth/known';
import { useFindings, useNetworkLook, useShow } from '@/data/show';
import { useLive } from '@/data/live';
import { useHeardFaults, useMachines } from '@/data/machines';
import type { FlowPicture as Picture } from '@/areas/flow/FlowPicture';
import { useStanding, whyHref } from '@/data/diagnosis';
import { Happened } from './Happened';
import { KeptAsGood } from './KeptAsGood';
import { MendAll } from './MendAll';
import { Repair } from '@/areas/why/Repair';
import {
  Button,
  Empty,
  KnownMark,
  Screen,
  Section,
  Sentence,
  StateWord,
  Text,
  WhyLink,
  count,
  lazyPart,
  useWide,
  PageShape,
} from '@/ui';

export function StandPage() {
  const wide = useWide();
  return wide ? (
    <View className="flex-1 flex-row">
      <View className="w-[560px] border-r border-line">
        <Standing />
      </View>
      <View className="flex-1">
        <Flowing />
      </View>
    </View>
  ) : (
    <Standing />
  );
}

/** Only a wide screen has it, and laying it out is a library of its own. */
const FlowPicture = lazyPart<ComponentProps<typeof Picture>>(() =>
  import('@/areas/flow/FlowPicture').then((part) => part.FlowPicture),
);

/** The picture of the flow, beside it on a wide screen. */
function Flowing() {
  const router = useRouter();
  const live = useLive();
  const { records, patch } = useShow();
  const entries = useMachines();
  return (
    <ScrollView className="flex-1" contentContainerClassName="p-4">
      <FlowPicture
        rows={ledger(records, patch, live, entries)}
        senders={sendersOf(records.machine)}
        onOnly={() => router.navigate('/flow')}
      />
    </ScrollView>
  );
}

function Standing() {
  const router = useRouter();
  const { records } = useShow();
  const { standing, trouble } = useStanding();
  if (!standing) return trouble ? <Empty>{trouble}</Empty> : <PageShape />;
  const { troubles, unexplained, more, looked } = standing;
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Text kind="label">How things stand</Text>
          <Sentence>{standing.verdict}</Sentence>
        </View>
      }
    >
      {records.lamp.length === 0 && (
        <View className="flex-row">
          <Button label="Add lamps" look="main" onPress={() => router.navigate('/rig/add')} />
        </View>
      )}
      <Heights standing={standing} />
      <MendAll troubles={troubles} />
      {troubles.length > 0 && (
        <Section title="What stands against it, by the light that it costs">
          <View role="list" aria-label="What stands against it">
            {troubles.map((one) => (
              <TroubleCard key={one.says} trouble={one} />
            ))}
          </View>
        </Section>
      )}
      {unexplained.length > 0 && (
        <Section
          title={
            looked ? 'Differs from the plan, and no known cause explains it' : 'Differs, and was not looked at yet'
          }
        >
          {unexplained.map((sentence) => (
            <Text key={sentence}>{sentence}</Text>
          ))}
          {more > 0 && <Text kind="small">and {more} more</Text>}
        </Section>
      )}
      <HeardFaults />
      <PlanFindings />
      <Happened />
      <KeptAsGood />
    </Screen>
  );
}

const lightText = ({ lamps, universes }: Trouble): string =>
  lamps > 0
    ? `${count(lamps, 'lamp')} without light or with another, on universe${universes.length === 1 ? '' : 's'} ${universes.join(', ')}`
    : 'costs no light now';

function TroubleCard({ trouble }: { trouble: Trouble }) {
  const { says, sure, ask, repair, act } = trouble;
  return (
    <View role="listitem" className="gap-2 border-b border-line py-3">
      <View className="flex-row items-start gap-3">
        <View className="flex-1 gap-1">
          <Text kind="strong">
            {SURE_WORDS[sure]}
            {says}
          </Text>
          <Text kind="small" tone={trouble.lamps > 0 ? 'fault' : 'soft'}>
            {lightText(trouble)}
          </Text>
        </View>
        <StateWord state={sure === 'open' ? 'look at' : 'must fix'} />
      </View>
      <Repair says={repair} act={act} />
      <View className="flex-row">
        <WhyLink href={whyHref(ask)} about={says} />
      </View>
    </View>
  );
}

/** Each height with its own count: nothing is better known than it is. */
function Heights({ standing: { wire, ports, lamps, asked } }: { standing: StandingReport }) {
  return (
    <View role="list" aria-label="How far it is known" className="gap-1">
      {wire.of > 0 && (
        <HeightRow
          known="heard"
          says={`${wire.known} of ${count(wire.of, 'universe')} as planned on the wire`}
          href="/listen"
        />
      )}
      {ports.of > 0 && (
        <HeightRow
          known="said"
          says={`${ports.known} of ${count(ports.of, 'port')} say that they send it`}
          href="/flow"
        />
      )}
      {asked.of > 0 && (
        <HeightRow
          known="said"
          says={`${asked.known} of ${count(asked.of, 'lamp')} that were asked answer as planned`}
          href="/prove/roll"
        />
      )}
      {lamps.of > 0 && (
        <HeightRow
          known="seen"
          says={`${lamps.known} of ${count(lamps.of, 'lamp')} seen to light${lamps.old > 0 ? `; ${lamps.old} before something changed` : ''}`}
          href="/prove"
        />
      )}
    </View>
  );
}

function HeightRow({
  known,
  says,
  href,
}: {
  known: 'heard' | 'said' | 'seen';
  says: string;
  href: '/listen' | '/flow' | '/prove' | '/prove/roll';
}) {
  return (
    <View role="listitem" className="flex-row items-center gap-3">
      <View className="w-20">
        <KnownMark known={known} of={says} />
      </View>
      <Link href={href} asChild>
        <Text tone="press" className="flex-1 py-1">
          {says}
        </Text>
      </Link>
    </View>
  );
}

/** Addresses and identities that two claim at once on the wire. */
function HeardFaults() {
  const faults = useHeardFaults();
  if (faults.length === 0) return null;
  const says = `${count(faults.length, 'address or identity', 'addresses or identities')} claimed by two at once`;
  return (
    <View className="flex-row items-center gap-3">
      <View className="w-20">
        <KnownMark known="heard" of={says} />
      </View>
      <Link href="/wire/findings" asChild>
        <Text tone="fault" className="flex-1 py-1">
          {says}
        </Text>
      </Link>
    </View>
  );
}

/** What the checks of the plan find; they are worked out, not heard. */
function PlanFindings() {
  const patch = useFindings();
  const { findings: network, known: looked } = useNetworkLook();
  const must = (all: readonly { readonly weight: string }[]) =>
    all.filter(({ weight }) => weight === 'must fix').length;
  const rows = [
    { says: 'The patch', href: '/rig/findings', fix: patch.length, look: 0, known: true },
    {
      says: 'Network and flow as planned',
      href: '/wire/findings',
      fix: must(network),
      look: network.length - must(network),
      known: looked,
    },
  ] as const;
  return (
    <Section title="The plan by itself">
      <KnownMark known="worked out" of="the plan by itself" />
      {rows.map(({ says, href, fix, look, known }) => (
        <Link key={says} href={href} asChild>
          <Text tone="press" className="py-1">
            {says}:{' '}
            {fix + look === 0
              ? known
                ? 'nothing found'
                : 'looking…'
              : [fix > 0 && `${fix} must fix`, look > 0 && `${look} to look at`].filter(Boolean).join(', ')}
          </Text>
        </Link>
      ))}
    </Section>
  );
}
