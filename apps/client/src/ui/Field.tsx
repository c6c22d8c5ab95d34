/** One line to type in, with its label and what is wrong with it. */
import { useId } from 'react';
import { TextInput, View, type TextInputProps } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';

interface Props extends Pick<
  TextInputProps,
  'onSubmitEditing' | 'autoFocus' | 'inputMode' | 'placeholder' | 'multiline'
> {
  label: string;
  value: string;
  onChange: (text: string) => void;
  fault?: string | undefined;
  /** Numbers and addresses are set in the mono. */
  mono?: boolean;
  hideLabel?: boolean;
}

export function Field({ label, value, onChange, fault, mono = false, hideLabel = false, ...rest }: Props) {
  const colour = useColour();
  const faultId = useId();
  return (
    <View className="gap-1">
      {!hideLabel && <Text kind="label">{label}</Text>}
      <TextInput
        aria-label={label}
        aria-invalid={fault !== undefined}
        aria-describedby={fault === undefined ? undefined : faultId}
        value={value}
        onChangeText={onChange}
        autoCapitalize="none"
        autoCorrect={false}
        placeholderTextColor={colour('soft')}
        className={`${rest.multiline ? 'min-h-20 py-2' : 'h-12'} rounded border bg-surface px-3 text-base text-text ${mono ? 'font-mono' : 'font-sans'} ${
          fault === undefined ? 'border-line' : 'border-fault'
        }`}
        {...rest}
      />
      {fault !== undefined && (
        <Text kind="small" id={faultId} role="alert" tone="fault">
          {fault}
        </Text>
      )}
    </View>
  );
}
