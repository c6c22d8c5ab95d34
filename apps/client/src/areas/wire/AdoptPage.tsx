/** Machines on the network that the plan lacks, taken into it together. */
import { ok } from '@taxiarch/core/base/result';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { adoptAll } from '@taxiarch/core/network/node';
import { useMachines } from '@/data/machines';
import { newId } from '@/data/numbers';
import { machineSelection, useSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Check, Empty, PageShape, Screen, Section, Sentence, count, useLeaveFor } from '@/ui';

export function AdoptPage() {
  const leaveFor = useLeaveFor();
  const { records, loaded } = useShow();
  const chosen = useSelection(machineSelection);
  const strangers = useMachines().flatMap(({ key, state, heard }) =>
    state === 'stranger' && heard ? [{ key, heard }] : [],
  );
  /** What was ticked or unticked here; of the others those that were chosen in the list, or all if none was */
  const [ticked, setTicked] = useState<ReadonlyMap<string, boolean>>(new Map());
  const some = strangers.some(({ key }) => chosen.includes(key));
  const isTaken = (key: string) => ticked.get(key) ?? (!some || chosen.includes(key));
  const ids = useRef(new Map<string, string>());
  const idOf = (key: string): string => {
    const id = ids.current.get(key) ?? newId();
    ids.current.set(key, id);
    return id;
  };
  const taken = strangers.filter(({ key }) => isTaken(key));
  if (!loaded) return <PageShape />;
  if (strangers.length === 0)
    return <Empty act={{ label: 'All machines', href: '/wire' }}>No strangers on the network.</Empty>;
  return (
    <Screen sentence={<Sentence>{count(strangers.length, 'machine')} on the network that the plan lacks.</Sentence>}>
      <Section title="Machines to adopt">
        <View>
          {strangers.map(({ key, heard: { address, name, node } }) => (
            <Check
              key={key}
              label={`${name || address}${name ? `, ${address}` : ''}${node ? `, ${count(node.ports.length, 'port')}` : ''}`}
              on={isTaken(key)}
              onChange={(on) => setTicked(new Map(ticked).set(key, on))}
            />
          ))}
        </View>
      </Section>
      {taken.length > 0 && (
        <PlanPreview
          key={taken.map(({ key }) => key).join()}
          plan={ok(
            adoptAll(
              records,
              taken.map(({ key, heard }) => ({ heard, id: idOf(key) })),
            ),
          )}
          act={`Adopt ${taken.length}`}
          onDone={() => {
            machineSelection.set([]);
            leaveFor('/wire');
          }}
        />
      )}
    </Screen>
  );
}
