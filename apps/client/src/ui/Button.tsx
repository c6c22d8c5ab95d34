/** A button, 48 px high: filled for the act of the screen, lined for others, coral for what sends. */
import type { LucideIcon } from 'lucide-react-native';
import { Pressable } from 'react-native';
import { Text } from './Text';
import { useColour, type Tone } from './theme';

export type ButtonLook = 'main' | 'plain' | 'hot' | 'bare';

const LOOKS: Readonly<Record<ButtonLook, { box: string; ink: Tone }>> = {
  main: { box: 'bg-press', ink: 'onpress' },
  plain: { box: 'border border-line bg-surface', ink: 'press' },
  hot: { box: 'bg-hot', ink: 'onpress' },
  bare: { box: '', ink: 'press' },
};

interface Props {
  label: string;
  /** Shown where the label is too long to show; the label is still read out. */
  short?: string;
  onPress: () => void;
  look?: ButtonLook;
  icon?: LucideIcon;
  /** Shows the icon alone; the label is still read out. */
  iconOnly?: boolean;
  disabled?: boolean;
  grow?: boolean;
}

export function Button({
  label,
  short,
  onPress,
  look = 'plain',
  icon: Icon,
  iconOnly = false,
  disabled = false,
  grow = false,
}: Props) {
  const colour = useColour();
  const { box, ink } = LOOKS[look];
  return (
    <Pressable
      role="button"
      aria-label={label}
      disabled={disabled}
      onPress={onPress}
      className={`h-12 min-w-12 flex-row items-center justify-center gap-2 rounded ${iconOnly ? 'px-3' : 'px-4'} ${box} ${
        grow ? 'flex-1' : ''
      } ${disabled ? 'opacity-40' : 'active:opacity-70'}`}
    >
      {Icon && <Icon size={20} color={colour(ink)} />}
      {!iconOnly && (
        <Text kind="strong" numberOfLines={1} tone={ink}>
          {short ?? label}
        </Text>
      )}
    </Pressable>
  );
}
