/** Before anything is done to lamps: that it needs hot, and the person's word; what was refused. */
import { View } from 'react-native';
import { Button, Notice } from '@/ui';
import type { LampActs } from './useLampActs';

interface Props {
  readonly acts: LampActs;
  /** What the button says */
  readonly act?: string;
  /** What happens once it is hot */
  readonly children?: string;
}

const SETS =
  'Taxiarch is safe and sets nothing. Once hot, lamps change their settings, and may move or light as they do.';

export function AskHot({ acts, act = 'Make hot and do it', children = SETS }: Props) {
  if (acts.trouble !== '') return <Notice state="must fix">{acts.trouble}</Notice>;
  if (!acts.asking) return null;
  return (
    <Notice
      state="look at"
      act={
        <View className="flex-row gap-2">
          <Button label={act} look="hot" grow onPress={() => acts.answer(true)} />
          <Button label="Leave safe" onPress={() => acts.answer(false)} />
        </View>
      }
    >
      {children}
    </Notice>
  );
}
