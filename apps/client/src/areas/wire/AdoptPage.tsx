/** Machines on the network that the plan lacks, taken into it together. */
import { ok } from '@taxiarch/core/base/result';
import { useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { adoptAll, type HeardMachine } from '@taxiarch/core/network/node';
import { useMachines } from '@/data/machines';
import { newId } from '@/data/numbers';
import { machineSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { PlanPreview } from '@/forms/PlanPreview';
import { Check, Empty, PageShape, Screen, Section, Sentence, count, useLeaveFor } from '@/ui';

/** Reports keep coming while the page is read: what was chosen stays as it was when it was opened. */
function useStrangers(): readonly HeardMachine[] {
  const now = useMachines().flatMap(({ state, heard }) => (state === 'stranger' && heard ? [heard] : []));
  const known = useRef<readonly HeardMachine[]>([]);
  const key = now.map(({ address }) => address).join();
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the addresses say whether the list changed
  return useMemo(() => (known.current = now), [key]);
}

export function AdoptPage() {
  const leaveFor = useLeaveFor();
  const { records, loaded } = useShow();
  const strangers = useStrangers();
  const [left, setLeft] = useState<ReadonlySet<string>>(() => {
    const chosen = machineSelection.read();
    const some = strangers.some(({ address }) => chosen.includes(address));
    return new Set(some ? strangers.flatMap(({ address }) => (chosen.includes(address) ? [] : [address])) : []);
  });
  const ids = useRef(new Map<string, string>());
  const idOf = (address: string): string => {
    const id = ids.current.get(address) ?? newId();
    ids.current.set(address, id);
    return id;
  };
  const taken = strangers.filter(({ address }) => !left.has(address));
  if (!loaded) return <PageShape />;
  if (strangers.length === 0)
    return <Empty act={{ label: 'All machines', href: '/wire' }}>No strangers on the network.</Empty>;
  return (
    <Screen sentence={<Sentence>{count(strangers.length, 'machine')} on the network that the plan lacks.</Sentence>}>
      <Section title="Machines to adopt">
        <View>
          {strangers.map(({ address, name, node }) => (
            <Check
              key={address}
              label={`${name || address}${name ? `, ${address}` : ''}${node ? `, ${count(node.ports.length, 'port')}` : ''}`}
              on={!left.has(address)}
              onChange={(on) => {
                const next = new Set(left);
                if (on) next.delete(address);
                else next.add(address);
                setLeft(next);
              }}
            />
          ))}
        </View>
      </Section>
      {taken.length > 0 && (
        <PlanPreview
          key={taken.map(({ address }) => address).join()}
          plan={ok(
            adoptAll(
              records,
              taken.map((heard) => ({ heard, id: idOf(heard.address) })),
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
