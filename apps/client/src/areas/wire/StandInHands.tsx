/** What hands can do to a stand-in: turn the knobs of a node, run a sender's cues and faders, make a visualiser wrong. */
import { useState } from 'react';
import { View } from 'react-native';
import { formatWire } from '@taxiarch/core/base/address';
import type { StandIn, StandInPort } from '@taxiarch/core/whole/contract';
import { wholeFrom } from '@/data/numbers';
import { Button, Check, Field, Pick, Section, Slider, Text } from '@/ui';

export interface HandsProps {
  readonly box: StandIn;
  readonly act: (change: object) => void;
}

/** The knobs of a node: what a hand at its front panel could turn. */
export function Knobs({ box, act }: HandsProps) {
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
export function Front({ box, act }: HandsProps) {
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
export function Wrongs({ box, act }: HandsProps) {
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

export function PortRow({ port }: { port: StandInPort }) {
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
