/** What the patch finds wrong with itself, each with the ways to mend it. */
import { ok } from '@taxiarch/core/base/result';
import { Link } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { repairsOf, type PatchFinding } from '@taxiarch/core/rig/patch';
import { useFindings, useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Button, Choice, Screen, Sentence, StateWord, Text, count } from '@/ui';
import { newId } from '@/data/numbers';

/** What is not said yet, and no fault. */
const LATER: ReadonlySet<PatchFinding['rule']> = new Set(['unaddressed', 'unknown-type']);

/** Findings shown at once. */
const MOST = 50;

function Repairs({ finding }: { finding: PatchFinding }) {
  const show = useShow();
  const repairs = useMemo(() => repairsOf(show, finding, newId), [show, finding]);
  const [which, setWhich] = useState('0');
  const repair = repairs[Number(which)] ?? repairs[0];
  if (!repair) return <Text kind="soft">No single step mends this. Open the lamp and change it by hand.</Text>;
  return (
    <View className="gap-3">
      {repairs.length > 1 && (
        <View className="gap-1">
          {repairs.map(({ label }, i) => (
            <Choice
              key={label}
              label={label}
              options={[{ value: String(i), label }]}
              value={String(repairs.indexOf(repair)) as string}
              onChange={setWhich}
            />
          ))}
        </View>
      )}
      <PlanPreview key={repair.label} plan={ok(repair.plan)} act={repair.label} />
    </View>
  );
}

function FindingCard({ finding, open, onOpen }: { finding: PatchFinding; open: boolean; onOpen: () => void }) {
  const { patch } = useShow();
  const unknown = finding.rule === 'unknown-type' ? patch.lamp(finding.subjects[0] ?? '')?.type : undefined;
  return (
    <View className="gap-2 rounded border border-line bg-surface p-3" role="listitem">
      <StateWord state={LATER.has(finding.rule) ? 'look at' : 'must fix'} />
      <Text>{finding.sentence}</Text>
      <View className="flex-row flex-wrap gap-3">
        {finding.subjects.slice(0, 6).map((id) => {
          const patched = patch.lamp(id);
          return (
            patched && (
              <Link key={id} href={`/rig/${patched.run ? 'pixels/' : ''}${id}`}>
                <Text tone="press">
                  {patched.lamp.number} {patched.lamp.name}
                </Text>
              </Link>
            )
          );
        })}
      </View>
      {unknown && (
        <Link href={`/rig/types/${unknown.id}`}>
          <Text tone="press">Say which type “{unknown.name}” is</Text>
        </Link>
      )}
      {!unknown && (open ? <Repairs finding={finding} /> : <Button label="Mend" onPress={onOpen} />)}
    </View>
  );
}

export function FindingsPage() {
  const { loaded } = useShow();
  const findings = useFindings();
  const [open, setOpen] = useState('');
  return (
    <Screen
      sentence={
        <Sentence>
          {!loaded
            ? 'Reading the show…'
            : findings.length === 0
              ? 'The patch has no faults.'
              : `${count(findings.length, 'fault')} in the patch.`}
        </Sentence>
      }
    >
      {findings.length === 0 && loaded && (
        <Text kind="soft">
          Overlaps, lamps past channel 512, shared numbers and universes that are not in the show would stand here, with
          ways to mend them.
        </Text>
      )}
      {findings.slice(0, MOST).map((finding) => (
        <FindingCard
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
