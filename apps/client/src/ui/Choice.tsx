/** One of a few, side by side. */
import { Pressable, View } from 'react-native';
import { Text } from './Text';

interface Props<T extends string> {
  label: string;
  options: readonly { readonly value: T; readonly label: string }[];
  value: T;
  onChange: (value: T) => void;
}

export function Choice<T extends string>({ label, options, value, onChange }: Props<T>) {
  return (
    <View role="radiogroup" aria-label={label} className="flex-row rounded border border-line">
      {options.map((option, i) => {
        const on = option.value === value;
        return (
          <Pressable
            key={option.value}
            role="radio"
            aria-checked={on}
            aria-label={option.label}
            onPress={() => onChange(option.value)}
            className={`h-11 flex-1 items-center justify-center px-1 ${i > 0 ? 'border-l border-line' : ''} ${on ? 'bg-raised' : ''}`}
          >
            <Text kind={on ? 'strong' : 'soft'} numberOfLines={1}>
              {option.label}
            </Text>
          </Pressable>
        );
      })}
    </View>
  );
}
