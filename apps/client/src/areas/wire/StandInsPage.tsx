/** The demo's bench: each stand-in's front panel, and hands that unplug, switch and turn. */
import { Link } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import type { StandIn } from '@taxiarch/core/whole/contract';
import { handleStandIn, useStandIns } from '@/data/machines';
import { Button, Empty, Notice, Screen, Sentence, Slider, StateWord, Text, count, useWide } from '@/ui';
import { RigHands } from './RigHands';
import { Front, Knobs, PortRow, Wrongs } from './StandInHands';

/** Ports of a box shown while it is closed. */
const FEW = 6;

function Box({ box }: { box: StandIn }) {
  const wide = useWide();
  const [open, setOpen] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { mutate } = useStandIns();
  const act = (change: object) => {
    setTrouble('');
    handleStandIn(box.id, change)
      .then((next) => mutate(next, { revalidate: false }))
      .catch((error: Error) => setTrouble(error.message));
  };
  const node = box.kind === 'node';
  const power = node ? (box.powered ? 'Power off' : 'Power on') : box.powered ? 'Stop' : 'Start';
  const cable = box.plugged ? 'Unplug' : 'Plug in';
  const knobs = open ? 'Close' : 'Open';
  return (
    <View
      role="region"
      aria-label={box.name}
      className={`gap-2 rounded border border-line bg-surface p-3 ${wide ? 'w-[380px]' : 'w-full'}`}
    >
      <View className="flex-row items-center gap-2">
        <Text kind="strong" className="flex-1" numberOfLines={1}>
          {box.name}
        </Text>
        {box.locating && <StateWord state="look at" />}
        <Text kind="small" tone={box.powered && box.plugged ? 'fine' : 'warn'}>
          {!box.powered ? (node ? '○ off' : '○ stopped') : !box.plugged ? '○ unplugged' : '● on'}
        </Text>
      </View>
      <Text kind="monoSmall">{box.adapter ? box.address : `${box.address} / ${box.mask}`}</Text>
      <Text kind="small">
        {box.model}
        {box.cue && ` · cue ${box.cue}`}
        {box.locating && ' · its lights flash'}
        {box.loses > 0 && ` · loses ${Math.round(box.loses * 100)} %`}
        {box.delays > 0 && ` · ${box.delays} ms late`}
      </Text>
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {box.rig && <RigHands box={box} act={act} />}
      {!box.rig && (
        <View className="flex-row gap-2">
          {!box.adapter && (
            <Button label={`${power} ${box.name}`} short={power} grow onPress={() => act({ power: !box.powered })} />
          )}
          {(node || box.adapter) && (
            <Button label={`${cable} ${box.name}`} short={cable} grow onPress={() => act({ plugged: !box.plugged })} />
          )}
          {!box.visualiser && box.adapter?.use !== 'out' && (
            <Button label={`${knobs} ${box.name}`} short={knobs} onPress={() => setOpen(!open)} />
          )}
        </View>
      )}
      {box.rigPage !== undefined && (
        <Button
          label={`The rig that ${box.name} holds`}
          look="bare"
          onPress={() => window.open(box.rigPage, '_blank', 'noopener')}
        />
      )}
      {box.adapter && (
        <Text>
          Its serial port is at {box.adapter.at}. {box.adapter.says}
        </Text>
      )}
      {box.visualiser && <Wrongs box={box} act={act} />}
      {open && !node && <Front box={box} act={act} />}
      {open && node && (
        <>
          <Slider
            label="Loses packets, %"
            value={Math.round(box.loses * 100)}
            max={100}
            onChange={(value) => act({ loses: value / 100 })}
          />
          <Slider label="Delays, ms" value={box.delays} max={1000} onChange={(delays) => act({ delays })} />
          <Knobs box={box} act={act} />
        </>
      )}
      {box.ports.slice(0, open ? undefined : FEW).map((port) => (
        <PortRow key={port.number} port={port} />
      ))}
      {!open && box.ports.length > FEW && <Text kind="small">and {box.ports.length - FEW} more.</Text>}
    </View>
  );
}

export function StandInsPage() {
  const { data, error, mutate } = useStandIns();
  const [trouble, setTrouble] = useState('');
  const reset = () => {
    setTrouble('');
    handleStandIn('all', { reset: true })
      .then((next) => mutate(next, { revalidate: false }))
      .catch((failed: Error) => setTrouble(failed.message));
  };
  if (error && !data) return <Empty>{error.message}</Empty>;
  if (data?.length === 0) return <Empty>No stand-ins: this is a real network. They come with the demo show.</Empty>;
  const on = data?.filter(({ powered, plugged }) => powered && plugged).length ?? 0;
  return (
    <Screen
      across
      sentence={
        <Sentence>{data ? `${on} of ${count(data.length, 'stand-in')} on.` : 'Looking at the bench…'}</Sentence>
      }
    >
      <Text kind="small">
        Simulated boxes on this computer, which speak real Art-Net and sACN. What is done here is done to them, as by a
        hand at the box: the plan knows nothing of it.
      </Text>
      <Link href="/practise" asChild>
        <Text tone="press" className="py-1">
          Practise: find faults against the clock
        </Text>
      </Link>
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      <View className="flex-row">
        <Button label="Make all as they were shipped" onPress={reset} />
      </View>
      <View className="flex-row flex-wrap gap-4">
        {(data ?? []).map((box) => (
          <Box key={box.id} box={box} />
        ))}
      </View>
    </Screen>
  );
}
