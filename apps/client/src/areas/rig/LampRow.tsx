/** One lamp in a list: its number, name, type and address; a box to choose it by while lamps are chosen. */
import { memo } from 'react';
import { Pressable, View } from 'react-native';
import { formatAddress } from '@taxiarch/core/base/address';
import type { PatchedLamp } from '@taxiarch/core/rig/patch';
import type { Tag } from '@taxiarch/core/show/records';
import { rigSelection } from '@/data/selection';
import { CheckBox, Row, Text } from '@/ui';

const TAG_COLOURS: Readonly<Record<Tag, string>> = {
  '': 'transparent',
  red: '#B4503C',
  orange: '#C9822E',
  yellow: '#C4B03C',
  green: '#5E8F4E',
  teal: '#3F8E8A',
  violet: '#8C6BA8',
  grey: '#8A8478',
};

export const LampRow = memo(function LampRow({
  patched,
  here,
  picking,
  on,
  there,
}: {
  patched: PatchedLamp;
  here: boolean;
  picking: boolean;
  on: boolean;
  /** Programs in which it is selected */
  there: string;
}) {
  const { lamp, type, mode, run } = patched;
  const label = `${run ? 'Run' : 'Lamp'} ${lamp.number} ${lamp.name}`;
  const inside = (
    <>
      {picking && <CheckBox on={on} />}
      <Text kind="mono" className="w-12 font-medium">
        {lamp.number}
      </Text>
      {lamp.tag !== '' && (
        <View
          aria-label={`tagged ${lamp.tag}`}
          style={{ width: 6, height: 28, borderRadius: 3, backgroundColor: TAG_COLOURS[lamp.tag] }}
        />
      )}
      <View className="flex-1">
        <Text numberOfLines={1}>{lamp.name}</Text>
        <Text kind="small" numberOfLines={1}>
          {run ? `${mode.name} pixels` : `${type.maker} ${type.name}, ${mode.name}`}
          {lamp.twin !== null && ' · twin'}
          {there !== '' && ` · selected in ${there}`}
        </Text>
      </View>
      <Text kind="mono">{patched.spans[0] ? formatAddress(patched.spans[0]) : '–'}</Text>
    </>
  );
  if (!picking || run)
    return (
      <Row href={`/rig/${run ? 'pixels/' : ''}${lamp.id}`} chosen={here}>
        {inside}
      </Row>
    );
  return (
    <Pressable
      role="checkbox"
      aria-checked={on}
      aria-label={label}
      onPress={() => rigSelection.toggle(lamp.id)}
      className={`min-h-14 flex-row items-center gap-3 border-b border-line px-4 py-1 ${on ? 'bg-raised' : ''}`}
    >
      {inside}
    </Pressable>
  );
});
