/** The demo's bench: each stand-in's front panel, and hands that unplug, switch and turn. */
import { Link } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import type { StandIn, StandInPort } from '@taxiarch/core/whole/contract';
import { handleStandIn, useStandIns } from '@/data/machines';
import { wholeFrom } from '@/data/numbers';
import {
  Button,
  Check,
  Empty,
  Field,
  Notice,
  Pick,
  Screen,
  Section,
  Sentence,
  Slider,
  StateWord,
  Text,
  count,
  useWide,
} from '@/ui';
import { RigHands } from './RigHands';

function PortRow({ port }: { port: StandInPort }) {
  const { number, use, protocol, wire, state, peak, lit, sources, merge } = port;
  const says = [state, sources.join(' and '), merge && sources.length > 1 ? merge.toUpperCase() : '']
    .filter(Boolean)
    .join(' · ');
  return (
    <View className="min-h-10 flex-row items-center gap-2 border-b border-line py-1">
      <Text kind="mono" className="w-6">
        {number}
      </Text>
      <View className="flex-1">
        <Text kind="small" tone="text" numberOfLines={1}>
          {use === 'off' ? 'off' : `${use} · ${formatWire({ protocol, number: wire })}`}
        </Text>
        <Text kind="small" numberOfLines={1}>
          {says}
        </Text>
      </View>
      <View className="w-24 items-end">
        <View className="h-2 w-full rounded bg-raised">
          <View className="h-2 rounded bg-fine" style={{ width: `${Math.round((peak / 255) * 100)}%` }} />
        </View>
        <Text kind="monoSmall">{lit} lit</Text>
      </View>
    </View>
  );
}

/** The knobs of a node: what a hand at its front panel could turn. */
function Knobs({ box, act }: { box: StandIn; act: (change: object) => void }) {
  const [port, setPort] = useState('1');
  const [wire, setWire] = useState('');
  const [mask, setMask] = useState(box.mask);
  const turn = (change: object) => act({ turn: change });
  const number = Number(port);
  return (
    <Section title="A hand at its front panel">
      {box.ports.length > 0 && (
        <>
          <View className="flex-row items-end gap-2">
            <View className="flex-1">
              <Pick
                label="Port"
                options={box.ports.map((one) => ({ value: String(one.number), label: `Port ${one.number}` }))}
                value={port}
                onChange={setPort}
              />
            </View>
            <View className="flex-1">
              <Field label="Number on the wire" mono value={wire} onChange={setWire} placeholder="7" />
            </View>
            <Button
              label="Turn"
              disabled={wholeFrom(wire) === undefined}
              onPress={() => turn({ port: number, wire: wholeFrom(wire) })}
            />
          </View>
          <View className="flex-row flex-wrap gap-2">
            {(['out', 'in', 'off'] as const).map((use) => (
              <Button key={use} label={use} onPress={() => turn({ port: number, settings: { use } })} />
            ))}
            {(['htp', 'ltp'] as const).map((merge) => (
              <Button
                key={merge}
                label={merge.toUpperCase()}
                onPress={() => turn({ port: number, settings: { merge } })}
              />
            ))}
            {(['sacn', 'artnet'] as const).map((protocol) => (
              <Button
                key={protocol}
                label={protocol === 'sacn' ? 'sACN' : 'Art-Net'}
                onPress={() => turn({ port: number, settings: { protocol } })}
              />
            ))}
          </View>
          <Pick
            label="When signal is lost"
            options={[
              { value: '', label: 'as it is' },
              { value: 'hold', label: 'hold for ever' },
              { value: 'hold-black', label: 'black after 3 s' },
              { value: 'fade', label: 'fade in 3 s' },
              { value: 'full', label: 'full' },
            ]}
            value=""
            onChange={(kind) =>
              kind !== '' &&
              turn({
                port: number,
                settings: { loss: { kind, after: kind === 'hold-black' ? 3 : 0, over: kind === 'fade' ? 3 : 0 } },
              })
            }
          />
        </>
      )}
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Field label="Mask that it says" mono value={mask} onChange={setMask} />
        </View>
        <Button label="Set the mask" onPress={() => turn({ mask })} />
      </View>
    </Section>
  );
}

/** A sender's front: its cues, its master, its faders. */
function Front({ box, act }: { box: StandIn; act: (change: object) => void }) {
  return (
    <>
      {box.cues.length > 0 && (
        <View className="flex-row items-end gap-2">
          <View className="flex-1">
            <Pick
              label="Cue"
              options={box.cues.map((value) => ({ value, label: value }))}
              value={box.cue}
              onChange={(cue) => act({ cue })}
            />
          </View>
          <Button label="Go" onPress={() => act({ cue: '' })} />
        </View>
      )}
      {box.faders.map((level, i) => (
        <Slider
          key={i}
          label={`Fader ${i + 1}`}
          value={level}
          max={255}
          onChange={(value) => act({ fader: [i, value] })}
        />
      ))}
      {box.timeCode !== undefined && (
        <Check label="Sends time code" on={box.timeCode} onChange={(timeCode) => act({ timeCode })} />
      )}
      {!box.adapter && <Slider label="Master, %" value={box.master} max={100} onChange={(master) => act({ master })} />}
    </>
  );
}

/** What the visualiser can be wrong in, on purpose. */
function Wrongs({ box, act }: { box: StandIn; act: (change: object) => void }) {
  const { faults, received, universes, missing, page } = box.visualiser!;
  return (
    <>
      <Text tone={missing === '' ? 'text' : 'fault'}>
        Receives {received} of {universes} universes{missing && `; not ${missing}`}.
      </Text>
      <Button label="Open its picture of the ship" onPress={() => window.open(page, '_blank', 'noopener')} />
      <Text kind="label">Wrong on purpose</Text>
      <Check
        label="Counts Art-Net from 0 instead of 1"
        on={faults.base === 0}
        onChange={(on) => act({ faults: { base: on ? 0 : 1 } })}
      />
      <Check
        label="Its other interface is chosen"
        on={faults.iface === 'wrong'}
        onChange={(on) => act({ faults: { iface: on ? 'wrong' : 'right' } })}
      />
      <Check
        label="Lamp 101 is in another mode"
        on={faults.otherMode}
        onChange={(otherMode) => act({ faults: { otherMode } })}
      />
      <Check
        label="Started before its senders, and has not noticed them"
        on={faults.early}
        onChange={(early) => act({ faults: { early } })}
      />
    </>
  );
}

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
