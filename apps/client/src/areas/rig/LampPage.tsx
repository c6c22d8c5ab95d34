/** One lamp: what it is, where it stands, its channels with what is on the wire now, and changing it. */
import { Link, useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { View } from 'react-native';
import { formatAddress, isAddressed, type SlotAddress } from '@taxiarch/core/base/address';
import { attributeLabel, channelMaximum, joinValue, rangeAt } from '@taxiarch/core/rig/fixture';
import type { FixtureChannel, Lamp } from '@taxiarch/core/show/records';
import { type PatchedLamp, removeLamps, slotsOf } from '@taxiarch/core/rig/patch';
import { rigSelection, walkSelection } from '@/data/selection';
import { whyHref } from '@/data/diagnosis';
import { onWire, useSlots } from '@/data/live';
import { useFindings, useShow } from '@/data/show';
import { DeletePlan } from '@/forms/Delete';
import { Way } from '@/areas/why/Way';
import { Missing, useLeaveFor, Button, Screen, Section, Sentence, Text, count, WhyLink } from '@/ui';
import { Answers } from './Answers';
import { EditLamp } from './EditLamp';

function ChannelRow({
  first,
  channel,
  values,
}: {
  first: SlotAddress | undefined;
  channel: FixtureChannel;
  values: readonly (number | undefined)[];
}) {
  const known = values.every((value) => value !== undefined);
  const value = known ? joinValue(values as number[]) : undefined;
  const share = value === undefined ? 0 : value / channelMaximum(channel);
  const range = value === undefined ? undefined : rangeAt(channel, value);
  if (!first) return null;
  return (
    <Link href={`/listen/u${first.universe}?slot=${first.channel}`} asChild>
      <View className="min-h-11 flex-row items-center gap-3 border-b border-line">
        <Text kind="monoSmall" className="w-16">
          {formatAddress(first)}
        </Text>
        <View className="flex-1">
          <Text numberOfLines={1}>
            {attributeLabel(channel.attribute)}
            {channel.cell !== undefined && ` ${channel.cell}`}
          </Text>
          <View className="h-1 bg-raised">
            <View className="h-1 bg-press" style={{ width: `${share * 100}%` }} />
          </View>
        </View>
        <Text kind="small">
          {range?.name ?? (channel.offsets.length > 1 ? `${channel.offsets.length * 8} bit` : '')}
        </Text>
        <Text kind="mono" className="w-16 text-right">
          {value ?? '–'}
        </Text>
      </View>
    </Link>
  );
}

export function LampPage() {
  const { lamp: id = '' } = useLocalSearchParams<{ lamp: string }>();
  const { patch, loaded } = useShow();
  const patched = patch.lamp(id);
  if (patched) return <LampDetails key={id} patched={patched} />;
  return <Missing loaded={loaded} what="This lamp" list="/rig" act="All lamps" />;
}

/** What papers and files of others say of it. */
const paperText = ({ written, unit, position, class: its, function: does, gel, circuit, notes }: Lamp): string =>
  [
    written && `Written ${written}`,
    unit && `unit ${unit}`,
    position && `on ${position}`,
    its && `class ${its}`,
    does && `function ${does}`,
    gel && `gel ${gel}`,
    circuit && `circuit ${circuit}`,
    notes,
  ]
    .filter(Boolean)
    .join(', ')
    .replace(/^./, (first) => first.toUpperCase());

/** What else can be done to a lamp, as it can be done to many. */
const MORE = [
  { act: 'address', label: 'Move' },
  { act: 'copy', label: 'Copy' },
  { act: 'tag', label: 'Colour' },
  { act: 'place', label: 'Place' },
  { act: 'group', label: 'Group' },
  { act: 'mode', label: 'Mode' },
] as const;

function LampDetails({ patched }: { patched: PatchedLamp }) {
  const router = useRouter();
  const leaveFor = useLeaveFor();
  const show = useShow();
  const { records } = show;
  const { lamp, type, mode, footprint } = patched;
  const universe = records.universe.find((one) => one.number === lamp.universe);
  const place = records.place.find((one) => one.id === lamp.placeId);
  const paper = paperText(lamp);
  const addresses = mode.channels.map((channel) => slotsOf(patched, channel));
  const now = useSlots(onWire(addresses.flat(), records.universe));
  /** Place among all slots of each channel's first one */
  const firsts = addresses.map((_, i) => addresses.slice(0, i).reduce((sum, { length }) => sum + length, 0));
  const findings = useFindings().filter(({ subjects }) => subjects.includes(lamp.id));
  const goWith = (selection: typeof rigSelection, to: Href) => {
    selection.set([lamp.id]);
    router.navigate(to);
  };
  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Sentence>
            {lamp.number} {lamp.name} {isAddressed(lamp) ? `at ${formatAddress(lamp)}` : 'has no address'}
          </Sentence>
          {findings.map(({ sentence }) => (
            <Text key={sentence} tone="fault">
              {sentence}
            </Text>
          ))}
        </View>
      }
      acts={
        <>
          <Button label="Switches of this lamp" short="Switches" onPress={() => goWith(rigSelection, '/rig/dip')} />
          <WhyLink href={whyHref({ kind: 'lamp', id: lamp.id, part: '' })} about={`Lamp ${lamp.number}`} />
          <Button
            label="Take this lamp"
            short="Take"
            look="main"
            grow
            onPress={() => goWith(walkSelection, '/prove')}
          />
        </>
      }
    >
      <Text kind="soft">
        {type.maker} {type.name}, {mode.name}, {count(footprint, 'channel')}
        {place ? `. ${place.name}` : ''}: {lamp.x} m across, {lamp.y} m along, {lamp.z} m up.
      </Text>
      {paper !== '' && <Text kind="soft">{paper}.</Text>}
      {universe && (
        <Section title="Its way, as far as it is known">
          <Way universe={universe.number} />
        </Section>
      )}
      <Answers lampId={lamp.id} uid={lamp.uid} />
      <Section title={universe ? 'Channels, as received now' : 'Channels'}>
        {mode.channels.map((channel, i) => (
          <ChannelRow
            key={`${channel.block ?? 1}/${channel.offsets.join()}`}
            first={addresses[i]![0]}
            channel={channel}
            values={addresses[i]!.map((_, byte) => now[firsts[i]! + byte]?.value)}
          />
        ))}
      </Section>
      <EditLamp patched={patched} />
      <Section title="More">
        <View className="flex-row flex-wrap gap-2">
          {MORE.map(({ act, label }) => (
            <Button
              key={act}
              label={`${label} this lamp`}
              short={label}
              onPress={() => goWith(rigSelection, `/rig/change?act=${act}`)}
            />
          ))}
        </View>
        <DeletePlan
          what={`lamp ${lamp.number}`}
          plan={() => removeLamps(show, [lamp.id])}
          onDone={() => leaveFor('/rig')}
        />
      </Section>
    </Screen>
  );
}
