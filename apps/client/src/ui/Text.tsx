/** Text in the few sizes that there are, in one of the theme's tones. */
import { Text as NativeText, type TextProps } from 'react-native';
import type { Tone } from './theme';

const KINDS = {
  title: ['text-title font-sans font-semibold', 'text'],
  lead: ['text-lead font-sans', 'text'],
  body: ['text-base font-sans', 'text'],
  strong: ['text-base font-sans font-semibold', 'text'],
  soft: ['text-base font-sans', 'soft'],
  small: ['text-small font-sans', 'soft'],
  label: ['text-small font-sans font-semibold', 'soft'],
  mono: ['text-base font-mono tabular-nums', 'text'],
  monoSmall: ['text-small font-mono tabular-nums', 'soft'],
  monoTitle: ['text-title font-mono font-medium tabular-nums', 'text'],
} as const satisfies Record<string, readonly [string, Tone]>;

/** Whole class names, so that the style sheet is made with them. */
const TONES: Readonly<Partial<Record<Tone, string>>> = {
  text: 'text-text',
  soft: 'text-soft',
  press: 'text-press',
  onpress: 'text-onpress',
  fine: 'text-fine',
  warn: 'text-warn',
  fault: 'text-fault',
  stray: 'text-stray',
  hot: 'text-hot',
};

interface Props extends TextProps {
  kind?: keyof typeof KINDS;
  /** Instead of the kind's own */
  tone?: Tone | undefined;
  className?: string;
}

export function Text({ kind = 'body', tone, className = '', ...rest }: Props) {
  const [shape, ownTone] = KINDS[kind];
  return <NativeText className={`${shape} ${TONES[tone ?? ownTone]} ${className}`} {...rest} />;
}
