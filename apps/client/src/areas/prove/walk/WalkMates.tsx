/** Who else walks, where they are, and which part this phone takes. */
import { View } from 'react-native';
import { itemOf, type WalkPart } from '@taxiarch/core/proving/walk';
import { useShow } from '@/data/show';
import { Pick, Section, Text } from '@/ui';
import type { Walking } from './useWalking';

const TURNS = [2, 3, 4];
const keyOf = ({ kind, id, index, of }: WalkPart): string => [kind, id, index, of].join('|');

/** The whole, each place, each port, or every so-manieth lamp. */
function useWalkParts(): readonly { readonly part: WalkPart; readonly label: string }[] {
  const { records } = useShow();
  return [
    { part: { kind: 'all', id: '', index: 0, of: 0 }, label: 'Everything' },
    ...TURNS.flatMap((of) =>
      Array.from({ length: of }, (_, index) => ({
        part: { kind: 'turn' as const, id: '', index, of },
        label: `Every ${['second', 'third', 'fourth'][of - 2]} lamp, from the ${['first', 'second', 'third', 'fourth'][index]}`,
      })),
    ),
    ...[...records.place]
      .sort((a, b) => a.order - b.order)
      .map(({ id, name }) => ({ part: { kind: 'place' as const, id, index: 0, of: 0 }, label: name })),
    ...records.machine.flatMap(({ id, name, ports }) =>
      ports
        .filter(({ use }) => use === 'out')
        .map(({ number }) => ({
          part: { kind: 'port' as const, id, index: number, of: 0 },
          label: `${name}, port ${number}`,
        })),
    ),
  ];
}

export function WalkMates({ walking }: { walking: Walking }) {
  const { patch } = useShow();
  const parts = useWalkParts();
  const labelOf = (part: WalkPart) => parts.find((one) => keyOf(one.part) === keyOf(part))?.label ?? 'a part';
  return (
    <Section title="Who walks what">
      <Pick
        label="This phone takes"
        options={parts.map(({ part, label }) => ({ value: keyOf(part), label }))}
        value={keyOf(walking.part)}
        onChange={(value) => {
          const found = parts.find(({ part }) => keyOf(part) === value);
          if (found) walking.setPart(found.part);
        }}
      />
      {walking.others.length === 0 ? (
        <Text kind="small">Nobody else walks now.</Text>
      ) : (
        <View className="gap-1">
          {walking.others.map(({ id, by, part, at }) => {
            const lamp = at === '' ? undefined : patch.lamp(itemOf(at).lampId)?.lamp;
            return (
              <Text key={id}>
                {by}: {labelOf(part).toLowerCase()}
                {lamp && `, at ${lamp.number} ${lamp.name}`}
              </Text>
            );
          })}
        </View>
      )}
    </Section>
  );
}
