/** Text in the few sizes that there are. */
import { Text as NativeText, type TextProps } from 'react-native';

const KINDS = {
  title: 'text-title font-sans font-semibold text-text',
  lead: 'text-lead font-sans text-text',
  body: 'text-base font-sans text-text',
  strong: 'text-base font-sans font-semibold text-text',
  soft: 'text-base font-sans text-soft',
  small: 'text-small font-sans text-soft',
  label: 'text-small font-sans font-medium text-soft',
  mono: 'text-base font-mono text-text tabular-nums',
  monoSmall: 'text-small font-mono text-soft tabular-nums',
} as const;

export type TextKind = keyof typeof KINDS;

export function Text({ kind = 'body', className = '', ...rest }: TextProps & { kind?: TextKind; className?: string }) {
  return <NativeText className={`${KINDS[kind]} ${className}`} {...rest} />;
}
