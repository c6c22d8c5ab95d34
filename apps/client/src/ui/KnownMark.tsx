/** How a statement is known: a small mark and its word; a tap shows what it rests on, and how old that is. */
import type { LucideIcon } from 'lucide-react-native';
import Ear from 'lucide-react-native/icons/ear';
import Eye from 'lucide-react-native/icons/eye';
import MessageSquare from 'lucide-react-native/icons/message-square';
import PencilRuler from 'lucide-react-native/icons/pencil-ruler';
import CircleHelp from 'lucide-react-native/icons/circle-question-mark';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { KNOWN_MEANS, type Known } from '@taxiarch/core/truth/known';
import { Text } from './Text';
import { useColour } from './theme';

const ICONS: Readonly<Record<Known, LucideIcon>> = {
  heard: Ear,
  said: MessageSquare,
  seen: Eye,
  'worked out': PencilRuler,
  'not known': CircleHelp,
};

interface Props {
  known: Known;
  /** Of what, for who listens rather than looks */
  of: string;
  /** What it rests on, in sentences; each with its age if it has one */
  evidence?: readonly string[];
}

export function KnownMark({ known, of, evidence = [] }: Props) {
  const colour = useColour();
  const [open, setOpen] = useState(false);
  const Icon = ICONS[known];
  return (
    <View className="shrink">
      <Pressable
        role="button"
        aria-expanded={open}
        aria-label={`${known}, how it is known: ${of}`}
        onPress={() => setOpen(!open)}
        className="min-h-8 flex-row items-center gap-1 self-start rounded active:opacity-70"
      >
        <Icon size={15} color={colour('soft')} />
        <Text kind="small">{known}</Text>
      </Pressable>
      {open && (
        <View className="gap-1 border-l-2 border-line pb-1 pl-2">
          <Text kind="small">{KNOWN_MEANS[known]}</Text>
          {evidence.map((sentence) => (
            <Text key={sentence} kind="small" tone="text">
              {sentence}
            </Text>
          ))}
        </View>
      )}
    </View>
  );
}
