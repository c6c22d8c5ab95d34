/** One machine: planned beside seen, with the acts that bring the two together. */
import { rangeText, lineGoesTo } from '@taxiarch/core/network/flow';
import { ok } from '@taxiarch/core/base/result';
import { useLocalSearchParams, useRouter } from 'expo-router';
import Lightbulb from 'lucide-react-native/icons/lightbulb';
import { useState } from 'react';
import { View } from 'react-native';
import { type MachineEntry, adoptDrift, driftWords, portOf } from '@taxiarch/core/network/node';
import { isAdapter, keepSnapshot, snapshotOf } from '@taxiarch/core/network/machine';
import { type MachinePort, type Universe, SENDING_KINDS } from '@taxiarch/core/show/records';
import { whyHref } from '@/data/diagnosis';
import { useLive } from '@/data/live';
import { locate, useMachines } from '@/data/machines';
import { newId } from '@/data/numbers';
import { makeHot } from '@/data/output';
import { propose, useNetworkFindings, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import {
  Button,
  Notice,
  Screen,
  Section,
  Sentence,
  StateWord,
  Text,
  count,
  dayAndTime,
  spell,
  WhyLink,
  Missing,
} from '@/ui';
import { BringOn } from './BringOn';
import { LinkLoad } from './LinkLoad';
import { PortPicture } from './PortPicture';
import { PushButton, PushOutcome, usePush } from './PushPanel';
import { Stranger } from './Stranger';

function sentenceOf({ name, state, drift, heard }: MachineEntry): string {
  switch (state) {
    case 'matched':
      return `${name} is as planned.`;
    case 'drifted':
      return `${name}: ${count(drift.length, 'setting')} ${drift.length === 1 ? 'differs' : 'differ'} from the plan.`;
    case 'missing':
      return heard ? `${name} does not answer any more.` : `${name} does not answer.`;
    case 'stranger':
      return `${name} is in no plan.`;
    case 'unseen':
      return `${name} speaks no network protocol, so it cannot be heard.`;
  }
}

function Facts({ entry, now }: { entry: MachineEntry; now: number }) {
  const { plan, model, heard, by } = entry;
  const node = heard?.node;
  const facts: (readonly [string, string])[] = [
    ['Address', entry.address || 'none yet'],
    ['Hardware address', node?.mac ?? plan?.interfaces[0]?.mac ?? ''],
    ['Mask, as it says', node?.mask ?? ''],
    ['Kind', [plan?.kind ?? node?.kind, model && `${model.maker} ${model.name}`].filter(Boolean).join(', ')],
    ['Firmware', node?.firmware ?? (plan?.firmware ? `${plan.firmware} expected` : '')],
    ['Says', node?.longName ?? ''],
    ['Reports', node?.report ?? ''],
    ['Part of', node?.partOf ? `the product at ${node.partOf}` : ''],
    ['Also here', node && node.alsoHere.length > 0 ? `another box: ${node.alsoHere.join(', ')}` : ''],
    ['Also at', node && node.alsoAt.length > 0 ? node.alsoAt.join(', ') : ''],
    ['Sends', heard && heard.sends.length > 0 ? count(heard.sends.length, 'universe') : ''],
    ['Announces', heard && heard.announces > 0 ? `${count(heard.announces, 'universe')} by sACN` : ''],
    ['Heard', heard ? `${spell(now - heard.lastSeen)} ago, first ${spell(now - heard.firstSeen)} ago` : 'never'],
    ['Known by', by ? `its ${by}` : ''],
    ['Serial number', plan?.serial ?? ''],
    ['Notes', plan?.notes ?? ''],
  ];
  return (
    <View>
      {facts
        .filter(([, value]) => value !== '')
        .map(([label, value]) => (
          <View key={label} className="min-h-7 flex-row gap-3">
            <Text kind="small" className="w-32">
              {label}
            </Text>
            <Text kind={/^[0-9a-f.:]+$/.test(value) ? 'mono' : 'body'} className="flex-1">
              {value}
            </Text>
          </View>
        ))}
    </View>
  );
}

/** Planned beside seen; what differs and nothing else. */
function DriftTable({ entry }: { entry: MachineEntry }) {
  return (
    <View role="table" aria-label="What differs">
      <View className="flex-row gap-2 border-b border-line pb-1">
        <Text kind="small" className="flex-1">
          Setting
        </Text>
        <Text kind="small" className="w-28">
          Planned
        </Text>
        <Text kind="small" className="w-28">
          On the wire
        </Text>
      </View>
      {entry.drift.map(driftWords).map(({ what, planned, seen }) => (
        <View key={what} role="row" className="min-h-10 flex-row items-center gap-2 border-b border-line py-1">
          <Text className="flex-1">{what}</Text>
          <Text kind="monoSmall" className="w-28">
            {planned}
          </Text>
          <Text kind="monoSmall" tone="warn" className="w-28">
            {seen}
          </Text>
        </View>
      ))}
    </View>
  );
}

export function MachinePage() {
  const { machine: key = '' } = useLocalSearchParams<{ machine: string }>();
  const { loaded } = useShow();
  const entries = useMachines();
  const entry = entries.find((one) => one.key === key) ?? entries.find((one) => one.address === key);
  if (!entry) return <Missing loaded={loaded} what="This machine" list="/wire" act="All machines" />;
  return <Details key={entry.key} entry={entry} />;
}

function Details({ entry }: { entry: MachineEntry }) {
  const router = useRouter();
  const { records } = useShow();
  const findings = useNetworkFindings();
  const live = useLive();
  const push = usePush();
  const [taking, setTaking] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { plan, heard, state, drift, model } = entry;
  const node = heard && !heard.gone ? heard.node : undefined;
  const universes: ReadonlyMap<number, Universe> = new Map(records.universe.map((one) => [one.number, one]));
  const off = new Set(drift.flatMap((one) => portOf(one) ?? []));
  const own = findings.filter(({ subjects }) => plan && subjects.includes(plan.id));
  const ports: readonly MachinePort[] = plan?.ports ?? [];

  const attempt = (act: () => Promise<unknown>) => {
    setTrouble('');
    act().catch((error: Error) => setTrouble(error.message));
  };
  const show = () =>
    attempt(async () => {
      if (!live?.output.hot) await makeHot(true);
      await locate(node!.address, node!.indicators !== 'locate');
    });
  const keep = () =>
    attempt(() => {
      const at = new Date();
      const name = `${plan!.name}, ${dayAndTime(at.getTime())}`;
      const { sentence, changes } = keepSnapshot(snapshotOf(plan!, newId(), name, at.toISOString()));
      return propose(sentence, changes);
    });

  return (
    <Screen
      sentence={
        <View className="flex-row items-start gap-3">
          <View className="flex-1">
            <Sentence>{sentenceOf(entry)}</Sentence>
          </View>
          <StateWord state={state} />
        </View>
      }
      acts={
        plan && (
          <>
            {node && state === 'drifted' ? (
              <>
                <Button label="Adopt" onPress={() => setTaking(true)} />
                <PushButton push={push} machineIds={[plan.id]} label="Push to node" />
              </>
            ) : (
              <>
                {node && (
                  <Button
                    label={node.indicators === 'locate' ? 'Stop locating' : 'Locate'}
                    icon={Lightbulb}
                    onPress={show}
                  />
                )}
                <Button label="Change" grow onPress={() => router.navigate(`/wire/change/${plan.id}`)} />
              </>
            )}
            <WhyLink href={whyHref({ kind: 'machine', id: plan.id, part: '' })} about={plan.name} />
          </>
        )
      }
    >
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {plan?.locked && <Notice state="look at">It is locked: nothing is pushed to it until it is unlocked.</Notice>}
      <PushOutcome push={push} />
      {drift.length > 0 && <DriftTable entry={entry} />}
      {taking && plan && heard && drift.length > 0 && (
        <Section title="Adopt how it is set into the plan">
          <PlanPreview plan={ok(adoptDrift(records, plan, heard, drift))} act="Adopt" onDone={() => setTaking(false)} />
        </Section>
      )}
      {state === 'stranger' && heard && <Stranger heard={heard} />}
      {plan && isAdapter(plan) && (
        <Button
          label="Its plug: switch it on, and both ends of it"
          onPress={() => router.navigate(`/wire/adapters/${plan.id}`)}
        />
      )}
      {ports.length > 0 && (
        <Section title="Ports">
          <PortPicture ports={ports} seen={node?.ports} universes={universes} off={off} />
          <View className="flex-row gap-2">
            <Button label="Set ports" grow onPress={() => router.navigate(`/wire/ports/${plan!.id}`)} />
            <Button label="Keep as snapshot" grow onPress={keep} />
            {model?.rdm && (
              <Button label="Its lamps" grow onPress={() => router.navigate(`/prove/roll?node=${plan!.id}`)} />
            )}
          </View>
        </Section>
      )}
      {plan && (plan.sends !== null || SENDING_KINDS.includes(plan.kind)) && (
        <Section title="What it sends">
          <Text>
            {plan.sends === null
              ? 'Nothing is planned.'
              : plan.sends.lines
                  .map((line) => `${rangeText(line)} → ${lineGoesTo(line, universes)}${line.on ? '' : ', off'}`)
                  .join('; ') || 'Nothing is planned.'}
          </Text>
          <Button
            label={plan.sends === null ? 'Plan what it sends' : 'Change what it sends'}
            onPress={() =>
              router.navigate(plan.sends === null ? `/flow/senders/new?machine=${plan.id}` : `/flow/senders/${plan.id}`)
            }
          />
        </Section>
      )}
      {own.length > 0 && (
        <Section title="Findings">
          {own.map(({ sentence, weight }) => (
            <View key={sentence} className="gap-1">
              <StateWord state={weight} />
              <Text>{sentence}</Text>
            </View>
          ))}
          <Button label="Mend" onPress={() => router.navigate('/wire/findings')} />
        </Section>
      )}
      <Section title="Machine">
        <Facts entry={entry} now={live?.at ?? 0} />
        {plan && state === 'drifted' && (
          <View className="flex-row gap-2">
            {node && (
              <Button
                label={node.indicators === 'locate' ? 'Stop locating' : 'Locate'}
                icon={Lightbulb}
                onPress={show}
              />
            )}
            <Button label="Change" grow onPress={() => router.navigate(`/wire/change/${plan.id}`)} />
          </View>
        )}
      </Section>
      {plan && <LinkLoad machine={plan} />}
      {plan && <BringOn entry={{ ...entry, plan }} />}
    </Screen>
  );
}
