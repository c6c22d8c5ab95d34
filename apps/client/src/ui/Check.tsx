/** Yes or no. */
import CheckMark from 'lucide-react-native/icons/check';
import { Pressable, View } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';

export function CheckBox({ on }: { on: boolean }) {
  const colour = useColour();
  return (
    <View
      className={`h-6 w-6 items-center justify-center rounded border ${on ? 'border-press bg-press' : 'border-line'}`}
    >
      {on && <CheckMark size={18} color={colour('onpress')} />}
    </View>
  );
}

export function Check({ label, on, onChange }: { label: string; on: boolean; onChange: (on: boolean) => void }) {
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      onPress={() => onChange(!on)}
      className="min-h-12 flex-row items-center gap-3"
    >
      <CheckBox on={on} />
      <Text className="flex-1">{label}</Text>
    </Pressable>
  );
}
