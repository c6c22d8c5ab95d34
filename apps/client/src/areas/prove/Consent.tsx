/** Before anything is sent: what will happen, and the person's word. */
import { View } from 'react-native';
import { Button, Notice } from '@/ui';
import type { Taking } from './taking';

export function Consent({ taking }: { taking: Taking }) {
  if (taking.trouble !== '') return <Notice state="must fix">{taking.trouble}</Notice>;
  if (!taking.asking) return null;
  return (
    <Notice
      state="look at"
      act={
        <View className="flex-row gap-2">
          <Button label="Make hot and take" look="hot" grow onPress={() => void taking.consent(true)} />
          <Button label="Leave safe" onPress={() => void taking.consent(false)} />
        </View>
      }
    >
      Taxiarch is safe and sends nothing. Once hot, it sends real values: lamps will move and light. Look that nobody is
      in their way.
    </Notice>
  );
}
