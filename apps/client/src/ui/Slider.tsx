/** A slider with its number beside it; either may be used. The whole height of 48 px answers to a thumb. */
import { createElement, useState, type ChangeEvent, type FormEvent } from 'react';
import { View } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';

interface Props {
  label: string;
  value: number;
  max: number;
  onChange: (value: number) => void;
  disabled?: boolean;
  /** How the value reads beside the number, as in “50 %”. */
  reads?: string;
}

export function Slider({ label, value, max, onChange, disabled = false, reads }: Props) {
  const colour = useColour();
  // While somebody is in the number it is theirs: a level that moves meanwhile must not change what they type.
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? String(value);
  const settle = (text: string) => {
    const number = Number(text);
    if (text.trim() !== '' && Number.isInteger(number) && number >= 0 && number <= max) onChange(number);
  };
  return (
    <View className="gap-0">
      <View className="flex-row items-baseline justify-between">
        <Text kind="label">{label}</Text>
        {reads !== undefined && <Text kind="monoSmall">{reads}</Text>}
      </View>
      <View className="flex-row items-center gap-3">
        <View className="flex-1">
          {createElement('input', {
            type: 'range',
            min: 0,
            max,
            step: 1,
            value,
            disabled,
            'aria-label': label,
            onChange: (event: ChangeEvent<HTMLInputElement>) => onChange(Number(event.target.value)),
            style: {
              width: '100%',
              height: 48,
              margin: 0,
              accentColor: colour('press'),
              touchAction: 'pan-y',
              opacity: disabled ? 0.4 : 1,
            },
          })}
        </View>
        {createElement('input', {
          type: 'text',
          inputMode: 'numeric',
          value: shown,
          disabled,
          'aria-label': `${label}, as a number from 0 to ${max}`,
          onChange: (event: ChangeEvent<HTMLInputElement>) => {
            setTyped(event.target.value);
            settle(event.target.value);
          },
          // The same number typed again is no change to the field, and still what shall be set.
          onInput: (event: FormEvent<HTMLInputElement>) => {
            if (event.currentTarget.value === shown) settle(shown);
          },
          onFocus: () => setTyped(String(value)),
          onBlur: () => setTyped(null),
          style: {
            width: max > 999 ? 88 : 64,
            height: 44,
            boxSizing: 'border-box',
            borderRadius: 6,
            border: `1px solid ${colour('line')}`,
            background: colour('surface'),
            color: colour('text'),
            font: '16px "Fira Mono"',
            textAlign: 'right',
            padding: '0 10px',
            opacity: disabled ? 0.4 : 1,
          },
        })}
      </View>
    </View>
  );
}
