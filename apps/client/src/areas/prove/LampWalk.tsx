/** A walk through lamps: one at a time, taken, lit, looked at, given back. */
import ChevronLeft from 'lucide-react-native/icons/chevron-left';
import ChevronRight from 'lucide-react-native/icons/chevron-right';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { formatAddress, isAddressed, wireKey, type SlotAddress } from '@taxiarch/core/base/address';
import { attributeLabel, channelMaximum } from '@taxiarch/core/rig/fixture';
import { slotsOf, type PatchedLamp } from '@taxiarch/core/rig/patch';
import {
  asPercent,
  asTake,
  carriedTo,
  highlightOf,
  intensityOf,
  levelsOf,
  receivedBy,
  runsOf,
  type ChannelValues,
} from '@taxiarch/core/rig/level';
import { onWire, readSlots, useLive, useSlots } from '@/data/live';
import { holdsHere, setLevels } from '@/data/output';
import { useShow } from '@/data/show';
import { Button, Screen, Section, Sentence, Slider, Text } from '@/ui';
import { ArtNetNote } from './ArtNetNote';
import { CellWalk } from './CellWalk';
import { Confirmed } from './Confirmed';
import { Consent } from './Consent';
import { Forecast } from './Forecast';

import { useTaking } from './taking';

/** With more cells than this only one cell's sliders are shown. */
const MANY_CELLS = 4;

const allSlots = (patched: PatchedLamp): SlotAddress[] =>
  patched.mode.channels.flatMap((channel) => slotsOf(patched, channel));

/** Values of a lamp by the levels of its slots. */
function received(
  patched: PatchedLamp,
  slots: readonly SlotAddress[],
  levels: readonly (number | undefined)[],
): ChannelValues {
  const heard = new Map(slots.map((at, i) => [formatAddress(at), levels[i]]));
  return receivedBy(patched, (at) => heard.get(formatAddress(at)));
}

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
  /** What a person set; null while the lamp is as it is received. */
  const [chosen, setChosen] = useState<ChannelValues | null>(null);
  const slots = useMemo(() => allSlots(patched), [patched]);
  const now = useSlots(onWire(slots, records.universe));
  const values =
    chosen ??
    received(
      patched,
      slots,
      now.map((one) => one?.value),
    );
  const universe = records.universe.find((one) => one.number === lamp.universe);
  const first = patched.spans[0];
  const held = first !== undefined && holdsHere(output, first.universe, first.channel);
  const cells = mode.channels.reduce((most, { cell = 0 }) => Math.max(most, cell), 0);
  /** A lamp of many cells shows the sliders of one of them. */
  const [cell, setCell] = useState(1);
  const intensity = mode.channels.findIndex(({ attribute }) => attribute === 'Dimmer');

  const send = (next: ChannelValues) => {
    setChosen(next);
    if (!held) return;
    setLevels(
      records.universe,
      mode.channels.flatMap((channel, i) => levelsOf(patched, channel, next[i]!)),
    );
  };

  /** Lights one cell as its type says and darkens the others. */
  const lightCell = (which: number) => {
    setCell(which);
    send(
      mode.channels.map((channel) =>
        channel.cell === undefined || channel.cell === which ? channel.highlight : channel.default,
      ),
    );
  };
  const setChannel = (which: number, value: number) => send(values.map((before, i) => (i === which ? value : before)));

  /** The next lamp; what is taken moves along with its intensity, and is seen before this one is given back. */
  const step = async (by: number) => {
    const next = lamps[index + by];
    if (!next) return;
    setAt(index + by);
    setChosen(null);
    if (!held) return;
    const its = allSlots(next);
    const levels = await readSlots(onWire(its, records.universe));
    const carried = carriedTo(next, received(next, its, levels), intensityOf(patched, values));
    setChosen(carried);
    await taking.take(asTake(next, carried));
    await taking.giveBack(runsOf(patched));
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
            <Button
              label="Give back"
              look="plain"
              grow
              onPress={() => {
                setChosen(null);
                void taking.giveBack(runsOf(patched));
              }}
            />
          ) : (
            <Button label="Take" look="main" grow onPress={() => void taking.take(asTake(patched, null))} />
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
      {universe && !held && <Forecast universe={lamp.universe} />}
      {universe && held && <Confirmed universe={lamp.universe} />}
      {universe?.protocol === 'artnet' && held && (
        <ArtNetNote universeKey={wireKey({ protocol: 'artnet', number: universe.wire })} />
      )}
      {!universe && (
        <Text kind="soft">
          {isAddressed(lamp)
            ? `Universe ${lamp.universe} is not in the show, so this lamp cannot be taken.`
            : 'It has no address, so it cannot be taken.'}
        </Text>
      )}
      {intensity >= 0 && slider(intensity)}
      {cells > 1 && (
        <CellWalk key={lamp.id} cells={cells} what={patched.run ? 'pixel' : 'cell'} held={held} onLight={lightCell} />
      )}
      <Section title={cells > MANY_CELLS ? `Attributes of ${patched.run ? 'pixel' : 'cell'} ${cell}` : 'Attributes'}>
        {mode.channels.map((channel, i) =>
          i === intensity || (cells > MANY_CELLS && channel.cell !== undefined && channel.cell !== cell)
            ? null
            : slider(i),
        )}
      </Section>
      <Button label="Choose other lamps" look="bare" onPress={onChoose} />
    </Screen>
  );
}
