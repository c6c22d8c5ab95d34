/** The channels of a mode as rows of fields. */
import Trash from 'lucide-react-native/icons/trash';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { KNOWN_ATTRIBUTES, attributeLabel } from '@taxiarch/core/rig/fixture';
import { Button, Field, Text } from '@/ui';
import { readChannelForm, type ChannelForm } from './typeForm';

interface Props {
  channels: readonly ChannelForm[];
  onChange: (channels: readonly ChannelForm[]) => void;
}

export function ChannelRows({ channels, onChange }: Props) {
  const [open, setOpen] = useState(-1);
  const set = (at: number, part: Partial<ChannelForm>) =>
    onChange(channels.map((channel, i) => (i === at ? { ...channel, ...part } : channel)));
  return (
    <View>
      <datalist id="attributes">
        {KNOWN_ATTRIBUTES.map((name) => (
          <option key={name} value={name}>
            {attributeLabel(name)}
          </option>
        ))}
      </datalist>
      {channels.map((channel, i) => {
        const read = readChannelForm(channel);
        return (
          <View key={i} className="border-b border-line py-1">
            <Pressable
              role="button"
              aria-expanded={open === i}
              onPress={() => setOpen(open === i ? -1 : i)}
              className="min-h-11 flex-row items-center gap-3"
            >
              <Text kind="mono" className="w-16">
                {channel.slots}
              </Text>
              <Text className="flex-1" numberOfLines={1}>
                {attributeLabel(channel.attribute)} {channel.cell}
              </Text>
              {!read.ok && (
                <Text kind="small" tone="fault">
                  not right
                </Text>
              )}
              <Text kind="small" numberOfLines={1}>
                {channel.ranges === '' ? '' : `${channel.ranges.split(',').length} values`}
              </Text>
            </Pressable>
            {open === i && (
              <View className="gap-2 pb-3">
                <View className="flex-row gap-2">
                  <View className="flex-1">
                    <Field
                      label="Attribute"
                      value={channel.attribute}
                      onChange={(attribute) => set(i, { attribute })}
                    />
                  </View>
                  <View className="w-32">
                    <Field
                      label="Slots, coarse first"
                      mono
                      value={channel.slots}
                      onChange={(slots) => set(i, { slots })}
                    />
                  </View>
                </View>
                <View className="flex-row gap-2">
                  <View className="flex-1">
                    <Field
                      label="Default"
                      mono
                      value={channel.default}
                      onChange={(text) => set(i, { default: text })}
                    />
                  </View>
                  <View className="flex-1">
                    <Field
                      label="Highlight"
                      mono
                      value={channel.highlight}
                      onChange={(highlight) => set(i, { highlight })}
                    />
                  </View>
                  <View className="w-16">
                    <Field label="Cell" mono value={channel.cell} onChange={(cell) => set(i, { cell })} />
                  </View>
                  <View className="w-16">
                    <Field label="Block" mono value={channel.block} onChange={(block) => set(i, { block })} />
                  </View>
                </View>
                <Field
                  label="Named values, as in “open 255, strobe 10–99”"
                  value={channel.ranges}
                  onChange={(ranges) => set(i, { ranges })}
                />
                {!read.ok && <Text tone="fault">{read.why}</Text>}
                <Button
                  label={`Remove channel ${i + 1}`}
                  icon={Trash}
                  onPress={() => {
                    setOpen(-1);
                    onChange(channels.filter((_, at) => at !== i));
                  }}
                />
              </View>
            )}
          </View>
        );
      })}
    </View>
  );
}
