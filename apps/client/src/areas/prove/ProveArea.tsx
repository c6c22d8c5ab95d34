/** Prove: take lamps or slots, look at what happens, give them back. */
import { useLocalSearchParams } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { useSelection, walkSelection } from '@/data/selection';
import { useShow } from '@/data/show';
import { Missing, Choice, Empty, useWide } from '@/ui';
import { LampPicker } from './LampPicker';
import { LampWalk } from './LampWalk';
import { RangeTake } from './RangeTake';

const WAYS = [
  { value: 'lamps', label: 'Lamps' },
  { value: 'slots', label: 'Slots' },
] as const;
type Way = (typeof WAYS)[number]['value'];

export function ProveArea() {
  const wide = useWide();
  const { patch, loaded } = useShow();
  const chosen = useSelection(walkSelection);
  const [way, setWay] = useState<Way>('lamps');
  const [walking, setWalking] = useState(chosen.length > 0);
  const { lamp } = useLocalSearchParams<{ lamp?: string }>();
  // Somebody wants this one lamp lit.
  const asked = useRef<string>(undefined);
  useEffect(() => {
    if (lamp === undefined || lamp === asked.current) return;
    asked.current = lamp;
    walkSelection.set([lamp]);
    setWalking(true);
  }, [lamp]);
  const lamps = chosen.flatMap((id) => patch.lamp(id) ?? []);
  const missing = loaded && lamp !== undefined && !patch.lamp(lamp);
  const inWalk = walking && lamps.length > 0;

  const lampsView = wide ? (
    <View className="flex-1 flex-row">
      <View className="w-[420px] border-r border-line">
        <LampPicker onBegin={() => setWalking(true)} />
      </View>
      <View className="flex-1">
        {inWalk ? (
          <LampWalk lamps={lamps} onChoose={() => setWalking(false)} />
        ) : (
          <Empty>The lamp in hand will stand here, with its attributes to take and move.</Empty>
        )}
      </View>
    </View>
  ) : inWalk ? (
    <LampWalk lamps={lamps} onChoose={() => setWalking(false)} />
  ) : (
    <LampPicker onBegin={() => setWalking(true)} />
  );
  if (missing) return <Missing loaded what="This lamp" list="/prove" act="All lamps" />;
  return (
    <View className="flex-1">
      <View className={`px-4 pt-2 ${wide ? 'w-[420px]' : ''}`}>
        <Choice label="What to take" options={WAYS} value={way} onChange={setWay} />
      </View>
      {way === 'lamps' ? lampsView : <RangeTake />}
    </View>
  );
}
