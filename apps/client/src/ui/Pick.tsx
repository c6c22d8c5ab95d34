/** One of many, by the device's own list. */
import { useId } from 'react';
import { View } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';

interface Props {
  label: string;
  options: readonly { readonly value: string; readonly label: string }[];
  value: string;
  onChange: (value: string) => void;
  hideLabel?: boolean;
}

export function Pick({ label, options, value, onChange, hideLabel = false }: Props) {
  const colour = useColour();
  const id = useId();
  return (
    <View className="gap-1">
      {!hideLabel && <Text kind="label">{label}</Text>}
      <select
        id={id}
        aria-label={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        style={{
          height: 48,
          width: '100%',
          borderRadius: 6,
          border: `1px solid ${colour('line')}`,
          background: colour('surface'),
          color: colour('text'),
          font: 'inherit',
          fontFamily: 'inherit',
          fontSize: 16,
          padding: '0 12px',
        }}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </View>
  );
}
