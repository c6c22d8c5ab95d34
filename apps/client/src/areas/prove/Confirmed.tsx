/** After a take: what each port of the universe says now, which confirms what was forecast or speaks against it. */
import { View } from 'react-native';
import { outletText } from '@taxiarch/core/network/flow';
import { OutletMark, useOutlets } from '@/areas/why/Way';
import { KnownMark, Text } from '@/ui';

export function Confirmed({ universe }: { universe: number }) {
  const outlets = useOutlets(universe);
  if (outlets.length === 0) return null;
  if (outlets.every(({ heard, merging }) => heard && !merging))
    return (
      <View role="list" aria-label="What the ports say">
        <View role="listitem" className="flex-row items-center gap-3">
          <KnownMark known="said" of="what the ports say" evidence={outlets.map(outletText)} />
          <Text kind="small" className="flex-1">
            {outlets.length === 1
              ? `${outletText(outlets[0]!)} says that it sends this, and does not merge.`
              : `${outlets.length} ports say that they send this, and do not merge.`}
          </Text>
        </View>
      </View>
    );
  return (
    <View role="list" aria-label="What the ports say" className="gap-2">
      {outlets.map((outlet) => {
        const alone = outlet.heard && !outlet.merging;
        return (
          <View
            key={outletText(outlet)}
            role="listitem"
            className={`gap-1 border-l-4 pl-3 ${alone ? 'border-line' : 'border-warn'}`}
          >
            <Text tone={alone ? 'text' : 'warn'}>
              {outletText(outlet)}: {outlet.heard ? `it says that it ${outlet.says}` : outlet.says}
            </Text>
            <OutletMark outlet={outlet} />
          </View>
        );
      })}
    </View>
  );
}
