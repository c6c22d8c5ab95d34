/** Cell by cell through a lamp of many, or pixel by pixel through a run: one lit, the others dark. */
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Button, Choice, Section, Text } from '@/ui';

const SPEEDS = [
  { value: '0', label: 'By hand' },
  { value: '500', label: '2 a second' },
  { value: '100', label: '10 a second' },
] as const;
type Speed = (typeof SPEEDS)[number]['value'];

interface Props {
  cells: number;
  /** “pixel” or “cell” */
  what: string;
  held: boolean;
  onLight: (cell: number) => void;
}

export function CellWalk({ cells, what, held, onLight }: Props) {
  const [at, setAt] = useState(0);
  const [speed, setSpeed] = useState<Speed>('0');
  const light = (cell: number) => {
    setAt(cell);
    onLight(cell);
  };
  useEffect(() => {
    if (speed === '0' || !held) return;
    const timer = setInterval(() => light((at % cells) + 1), Number(speed));
    return () => clearInterval(timer);
  });
  return (
    <Section title={`One ${what} at a time`}>
      <View className="flex-row items-center gap-2">
        <Button
          label={`One ${what} back`}
          icon={ChevronLeft}
          iconOnly
          disabled={!held || at <= 1}
          onPress={() => light(at - 1)}
        />
        <Text kind="mono" className="flex-1 text-center">
          {at === 0 ? `${cells} ${what}s` : `${what} ${at} of ${cells}`}
        </Text>
        <Button
          label={`One ${what} on`}
          icon={ChevronRight}
          iconOnly
          disabled={!held || at >= cells}
          onPress={() => light(at + 1)}
        />
      </View>
      <Choice label={`Step through ${what}s`} options={SPEEDS} value={speed} onChange={setSpeed} />
    </Section>
  );
}
