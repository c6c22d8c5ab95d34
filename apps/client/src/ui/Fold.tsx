/** More of the same, for whoever wants it: a line that opens and closes. */
import ChevronDown from 'lucide-react-native/icons/chevron-down';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { useState, type ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { Text } from './Text';
import { useColour } from './theme';

interface Props {
  title: string;
  /** Of what, for who listens rather than looks */
  of: string;
  children: ReactNode;
}

export function Fold({ title, of, children }: Props) {
  const colour = useColour();
  const [open, setOpen] = useState(false);
  const Icon = open ? ChevronDown : ChevronRight;
  return (
    <View>
      <Pressable
        role="button"
        aria-expanded={open}
        aria-label={`${title}: ${of}`}
        onPress={() => setOpen(!open)}
        className="min-h-10 flex-row items-center gap-1 active:opacity-70"
      >
        <Icon size={16} color={colour('press')} />
        <Text kind="small" tone="press">
          {title}
        </Text>
      </Pressable>
      {open && <View className="pl-5">{children}</View>}
    </View>
  );
}
