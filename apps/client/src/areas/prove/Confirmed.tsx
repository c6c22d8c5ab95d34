/** After a take: what each port of the universe says now, which confirms what was forecast or speaks against it. */
import { View } from 'react-native';
import { outletText, outletsByUniverse } from '@taxiarch/core/flow';
import { ageText } from '@taxiarch/core/known';
import { useLive } from '@/data/live';
import { useMachines } from '@/data/machines';
import { useShow } from '@/data/show';
import { KnownMark, Text } from '@/ui';

export function Confirmed({ universe }: { universe: number }) {
  const { records } = useShow();
  const live = useLive();
  const entries = useMachines();
  const outlets = outletsByUniverse(entries, records.universe).get(universe) ?? [];
  if (outlets.length === 0) return null;
  if (outlets.every(({ heard, merging }) => heard && !merging))
    return (
      <View role="list" aria-label="What the ports say">
        <View role="listitem" className="flex-row items-center gap-3">
          <KnownMark known="said" of="what the ports say" evidence={outlets.map(outletText)} />
          <Text kind="small" className="flex-1">
            {outlets.length === 1
              ? `${outletText(outlets[0]!)} says that it sends this, of one sender.`
              : `${outlets.length} ports say that they send this, each of one sender.`}
          </Text>
        </View>
      </View>
    );
  return (
    <View role="list" aria-label="What the ports say" className="gap-2">
      {outlets.map((outlet) => {
        const node = entries.find(({ plan }) => plan?.id === outlet.machineId)?.heard?.node;
        const name = outletText(outlet);
        const alone = outlet.heard && !outlet.merging;
        return (
          <View key={name} role="listitem" className={`gap-1 border-l-4 pl-3 ${alone ? 'border-line' : 'border-warn'}`}>
            <Text tone={alone ? 'text' : 'warn'}>
              {name}: {outlet.heard ? `it says that it ${outlet.says}` : outlet.says}
            </Text>
            <KnownMark
              known={outlet.known}
              of={name}
              evidence={node && live ? [`Its last answer came ${ageText(live.at - node.lastSeen)}.`] : []}
            />
          </View>
        );
      })}
    </View>
  );
}
