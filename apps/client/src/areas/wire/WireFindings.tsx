/** What is wrong with the plan of the network, with the ways to mend it, and with who is who on the wire. */
import { ok } from '@taxiarch/core/base/result';
import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { networkRepairs, type Finding } from '@taxiarch/core/truth/check';
import type { HeardFault } from '@taxiarch/core/network/node';
import { useHeardFaults } from '@/data/machines';
import { useNetworkLook, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Empty, Screen, Section, Sentence, StateWord, Text, count } from '@/ui';

/** Findings shown at once. */
const MOST = 50;

function Repairs({ finding }: { finding: Finding }) {
  const { records } = useShow();
  const repairs = useMemo(() => networkRepairs(records, finding), [records, finding]);
  const [which, setWhich] = useState(0);
  const repair = repairs[which] ?? repairs[0];
  if (!repair) return <Text kind="soft">No single step mends this. Open the machine and change it by hand.</Text>;
  return (
    <View className="gap-3">
      {repairs.length > 1 && (
        <View role="radiogroup" aria-label="Ways to mend it" className="gap-1">
          {repairs.map(({ label }, i) => (
            <Button
              key={label}
              label={label}
              look={repairs[i] === repair ? 'main' : 'plain'}
              onPress={() => setWhich(i)}
            />
          ))}
        </View>
      )}
      <PlanPreview key={repair.label} plan={ok(repair.plan)} act={repair.label} />
    </View>
  );
}

function Card({ finding, open, onOpen }: { finding: Finding; open: boolean; onOpen: () => void }) {
  const { records } = useShow();
  const names = new Map(records.machine.map(({ id, name }) => [id, name]));
  return (
    <View className="gap-2 rounded border border-line bg-surface p-3" role="listitem">
      <StateWord state={finding.weight} />
      <Text>{finding.sentence}</Text>
      {finding.evidence.map((line) => (
        <Text key={line} kind="monoSmall">
          {line}
        </Text>
      ))}
      <View className="flex-row flex-wrap gap-3">
        {[...new Set(finding.subjects)].map(
          (id) =>
            names.has(id) && (
              <Link key={id} href={`/wire/${id}`}>
                <Text tone="press">{names.get(id)}</Text>
              </Link>
            ),
        )}
      </View>
      {open ? <Repairs finding={finding} /> : <Button label="Mend" onPress={onOpen} />}
    </View>
  );
}

/** Two that claim one address or identity: nothing in the plan mends that. */
function Heard({ faults }: { faults: readonly HeardFault[] }) {
  if (faults.length === 0) return null;
  return (
    <Section title="Heard on the wire">
      {faults.map(({ key, sentence, mend, addresses }) => (
        <View key={key} className="gap-2 rounded border border-line bg-surface p-3" role="listitem">
          <StateWord state="must fix" />
          <Text>{sentence}</Text>
          <Text kind="soft">{mend}</Text>
          <View className="flex-row flex-wrap gap-3">
            {addresses.map((address) => (
              <Link key={address} href={`/wire/${address}`}>
                <Text tone="press">{address}</Text>
              </Link>
            ))}
          </View>
        </View>
      ))}
    </Section>
  );
}

export function WireFindings() {
  const { loaded } = useShow();
  const { findings, known } = useNetworkLook();
  const heard = useHeardFaults();
  const [open, setOpen] = useState('');
  if (!loaded) return <Empty>Reading the show…</Empty>;
  return (
    <Screen
      sentence={
        <Sentence>
          {findings.length === 0 && !known
            ? 'Looking…'
            : findings.length === 0
              ? 'The plan of the network has no faults.'
              : `${count(findings.length, 'finding')} in the plan of the network.`}
          {heard.length > 0 && ` ${count(heard.length, 'fault')} heard on the wire.`}
        </Sentence>
      }
    >
      <Heard faults={heard} />
      {findings.length === 0 && known && heard.length === 0 && (
        <Text kind="soft">
          The same address twice, masks that disagree, machines that cannot reach each other, and ports that ask of a
          model what it cannot do would stand here, with ways to mend them.
        </Text>
      )}
      {findings.slice(0, MOST).map((finding) => (
        <Card
          key={finding.sentence}
          finding={finding}
          open={open === finding.sentence}
          onOpen={() => setOpen(finding.sentence)}
        />
      ))}
      {findings.length > MOST && <Text kind="small">and {findings.length - MOST} more.</Text>}
    </Screen>
  );
}
