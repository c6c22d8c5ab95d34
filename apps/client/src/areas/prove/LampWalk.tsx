/** A walk through lamps: one at a time, taken, lit, looked at, given back. */
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { useState } from 'react';
import { View } from 'react-native';
import { formatAddress, wireKey } from '@taxiarch/core/address';
import { attributeLabel, channelMaximum } from '@taxiarch/core/fixture';
import type { PatchedLamp } from '@taxiarch/core/patch';
import { useLive } from '@/data/live';
import { holdsHere, setLevels } from '@/data/output';
import { useShow } from '@/data/show';
import { Button, Screen, Section, Sentence, Slider, Text } from '@/ui';
import { ArtNetNote } from './ArtNetNote';
import { Consent } from './Consent';
import { asPercent, asTake, defaultsOf, highlightOf, levelsOf, runOf, type ChannelValues } from './lampLevels';
import { useTaking } from './taking';

interface Props {
  lamps: readonly PatchedLamp[];
  onChoose: () => void;
}

export function LampWalk({ lamps, onChoose }: Props) {
  const [at, setAt] = useState(0);
  const index = Math.min(at, lamps.length - 1);
  const patched = lamps[index]!;
  const { lamp, mode, type } = patched;
  const { records } = useShow();
  const taking = useTaking();
  const output = useLive()?.output;
  const [values, setValues] = useState<ChannelValues>(() => defaultsOf(patched));
  const universe = records.universe.find((one) => one.number === lamp.universe);
  const held = holdsHere(output, lamp.universe, lamp.channel);
  const intensity = mode.channels.findIndex(({ attribute }) => attribute === 'Dimmer');

  const send = (next: ChannelValues) => {
    setValues(next);
    if (!held || !universe) return;
    setLevels(
      universe,
      mode.channels.flatMap((channel, i) => levelsOf(patched, channel, next[i]!)),
    );
  };
  const setChannel = (which: number, value: number) => send(values.map((before, i) => (i === which ? value : before)));

  /** The next lamp; what is taken moves along, with the intensity that it has. */
  const step = async (by: number) => {
    const next = lamps[index + by];
    if (!next) return;
    setAt(index + by);
    const share = intensity >= 0 ? values[intensity]! / channelMaximum(mode.channels[intensity]!) : 0;
    const fresh = defaultsOf(next).map((value, i) => {
      const channel = next.mode.channels[i]!;
      return channel.attribute === 'Dimmer' ? Math.round(share * channelMaximum(channel)) : value;
    });
    setValues(fresh);
    if (!held) return;
    await taking.giveBack([runOf(patched)]);
    await taking.take(asTake(next, fresh));
  };

  const slider = (which: number) => {
    const channel = mode.channels[which]!;
    const cell = channel.cell === undefined ? '' : ` ${channel.cell}`;
    return (
      <Slider
        key={which}
        label={attributeLabel(channel.attribute) + cell}
        value={values[which]!}
        max={channelMaximum(channel)}
        reads={asPercent(channel, values[which]!)}
        disabled={!held}
        onChange={(value) => setChannel(which, value)}
      />
    );
  };

  return (
    <Screen
      sentence={
        <View className="gap-1">
          <Text kind="small">
            Lamp {index + 1} of {lamps.length}
          </Text>
          <Sentence>
            {lamp.number} {lamp.name}
          </Sentence>
          <Text kind="monoSmall">
            {formatAddress(lamp)} · {type.maker} {type.name}, {mode.name}
          </Text>
        </View>
      }
      acts={
        <>
          <Button
            label="Lamp before"
            icon={ChevronLeft}
            iconOnly
            disabled={index === 0}
            onPress={() => void step(-1)}
          />
          {held ? (
            <Button label="Give back" look="plain" grow onPress={() => void taking.giveBack([runOf(patched)])} />
          ) : (
            <Button label="Take" look="main" grow onPress={() => void taking.take(asTake(patched, values))} />
          )}
          <Button label="Highlight" disabled={!held} onPress={() => send(highlightOf(patched))} />
          <Button
            label="Next lamp"
            icon={ChevronRight}
            iconOnly
            disabled={index === lamps.length - 1}
            onPress={() => void step(1)}
          />
        </>
      }
    >
      <Consent taking={taking} />
      {universe?.protocol === 'artnet' && held && (
        <ArtNetNote universeKey={wireKey({ protocol: 'artnet', number: universe.wire })} />
      )}
      {!universe && <Text kind="soft">Universe {lamp.universe} is not in the show, so this lamp cannot be taken.</Text>}
      {intensity >= 0 && slider(intensity)}
      <Section title="Attributes">{mode.channels.map((_, i) => i !== intensity && slider(i))}</Section>
      <Button label="Choose other lamps" look="bare" onPress={onChoose} />
    </Screen>
  );
}
