/** How far this computer hears: listed as a node, multicast groups, looking through universes, and what else is said. */
import { useState } from 'react';
import { View } from 'react-native';
import { formatUniverses } from '@taxiarch/core/base/address';
import type { LiveReport, Settings } from '@taxiarch/core/whole/contract';
import { timeCodesOf } from '@taxiarch/core/signal/stream';
import { call } from '@/data/api';
import { Button, Check, Field, Notice, Section, Slider, StateWord, Text, clockTime, count } from '@/ui';

interface Given {
  readonly settings: Settings;
  /** Resolves when it is done; rejects with a sentence */
  readonly change: (changes: Partial<Settings>) => Promise<unknown>;
  readonly live: LiveReport | undefined;
}

/** Whether Taxiarch answers polls as a node, and what follows from that. */
function Listed({ settings, change, live }: Given) {
  const listed = live?.listed.length;
  return (
    <Section title="Listed as a node">
      <Check
        label="Answer Art-Net polls as a node that listens to what is planned or opened"
        on={settings.listed}
        onChange={(on) => void change({ listed: on })}
      />
      <Text kind="small">
        {settings.listed
          ? `${listed === undefined ? '' : `Whoever polls is told of ${count(listed, 'output')}. `}Controllers that send only to nodes which list a universe then send it here too; to many of them that is one more packet a frame.`
          : 'Controllers that send only to nodes which list a universe do not send here: such universes look silent, though they may not be.'}
      </Text>
      {settings.listed && (
        <Slider
          label="Most outputs listed"
          value={settings.listedMost}
          max={1020}
          onChange={(most) => void change({ listedMost: Math.max(1, most) })}
        />
      )}
    </Section>
  );
}

/** Which sACN universes are joined, and looking for those that nobody announces. */
function Groups({ settings, change, live }: Given) {
  const [most, setMost] = useState(String(settings.mostGroups));
  const [range, setRange] = useState('1-1000');
  const [trouble, setTrouble] = useState('');
  const act = (doing: Promise<unknown>) =>
    void doing.then(
      () => setTrouble(''),
      (error: Error) => setTrouble(error.message),
    );
  if (!live) return null;
  const { membership, sweep } = live;
  const left = membership.wanted - membership.joined;
  return (
    <Section title="sACN universes listened to">
      <Text>{`${count(membership.joined, 'multicast group')} joined of ${membership.wanted} needed: what is opened and planned first, then what is announced.`}</Text>
      {left > 0 && (
        <Notice state="look at">
          {membership.full
            ? `This system lets no more be joined: ${count(left, 'universe')} that others announce ${left === 1 ? 'is' : 'are'} not heard. On Linux, raise net.ipv4.igmp_max_memberships as below.`
            : `${count(left, 'universe')} that others announce ${left === 1 ? 'is' : 'are'} not heard, for the limit below.`}
        </Notice>
      )}
      <View className="flex-row items-end gap-2">
        <View className="flex-1">
          <Field label="Most groups joined, 20 to 63999" mono value={most} onChange={setMost} />
        </View>
        <Button
          label="Set limit"
          disabled={!/^\d+$/.test(most) || Number(most) === settings.mostGroups}
          onPress={() => act(change({ mostGroups: Number(most) }))}
        />
      </View>
      <Text kind="small">
        {membership.ipv6 === 0
          ? 'None of them is joined by IPv6.'
          : `${membership.ipv6} of them are joined by IPv6 as well.`}
      </Text>
      <Check
        label="Send what is taken and routed by IPv6 as well"
        on={settings.sendIpv6}
        onChange={(on) => act(change({ sendIpv6: on }))}
      />
      {trouble !== '' && <Notice state="must fix">{trouble}</Notice>}
      {sweep.running ? (
        <>
          <Text>{`Looking through universes from ${sweep.at}: ${sweep.done} of ${sweep.total} done, ${sweep.found.length} heard.`}</Text>
          <Button label="Stop looking" onPress={() => act(call('stopSweep'))} />
        </>
      ) : (
        <>
          <Field label="Look through universes that nobody announces" mono value={range} onChange={setRange} />
          <Button label="Look through them" onPress={() => act(call('sweep', { body: { universes: range } }))} />
        </>
      )}
      {!sweep.running && sweep.total > 0 && (
        <Text>
          {sweep.found.length === 0
            ? 'Nothing was heard on them.'
            : `Heard on ${formatUniverses(sweep.found)}; they stand in Listen.`}
        </Text>
      )}
      {sweep.looked.map(({ from, to, at }) => (
        <Text key={from} kind="small" className="tabular-nums">
          {`${from} to ${to} looked through at ${clockTime(at)}`}
        </Text>
      ))}
    </Section>
  );
}

const KINDS = {
  timecode: 'Time code',
  diagnostics: 'Diagnostics',
  trigger: 'Trigger',
  command: 'Command',
} as const;

/** Who sends time code, and whether it runs; nothing follows it. */
function TimeCodes({ live }: Pick<Given, 'live'>) {
  const codes = live ? timeCodesOf(live.alsoHeard, live.at) : [];
  return (
    <>
      {codes.map(({ address, time, format, runs, stands }) => (
        <View key={address} className="flex-row items-center gap-3 border-b border-line py-1">
          <Text kind="mono" className="text-lg">
            {time}
          </Text>
          <Text kind="small" className="flex-1">
            {`${senderName(live!, address)}, ${format}`}
          </Text>
          <StateWord state={runs ? 'steady' : stands ? 'look at' : 'missing'} />
          <Text kind="small">{runs ? 'runs' : stands ? 'stands' : 'is heard no more'}</Text>
        </View>
      ))}
    </>
  );
}

/** By its streams or as a node, whoever sends from an address. */
const senderName = ({ universes, nodes }: LiveReport, address: string): string =>
  nodes.find((node) => node.address === address)?.shortName ??
  universes.flatMap(({ streams }) => streams).find((stream) => stream.address === address && stream.name !== '')
    ?.name ??
  address;

/** What nodes are asked for beside who they are, and what Art-Net senders say beside levels. */
function AlsoHeard({ settings, change, live }: Given) {
  const heard = live?.alsoHeard ?? [];
  return (
    <Section title="Also heard by Art-Net">
      <Check
        label="Ask nodes for diagnostics"
        on={settings.diagnostics}
        onChange={(on) => void change({ diagnostics: on })}
      />
      <Check
        label="Ask nodes to answer again whenever something changes"
        on={settings.changes}
        onChange={(on) => void change({ changes: on })}
      />
      <TimeCodes live={live} />
      {heard.length === 0 && <Text kind="small">No timecode, diagnostics, triggers or commands so far.</Text>}
      {heard.map(({ kind, address, count: packets, says, lastSeen }) => (
        <View key={`${kind} ${address}`} className="border-b border-line py-1">
          <Text>{`${KINDS[kind]}: ${says}`}</Text>
          <Text kind="small" className="tabular-nums">
            {`${address}, ${count(packets, 'packet')}, last ${clockTime(lastSeen)}`}
          </Text>
        </View>
      ))}
    </Section>
  );
}

/** Packets that were not read, and why. */
function NotRead({ live }: Pick<Given, 'live'>) {
  if (!live) return null;
  const reasons = Object.entries(live.rejected);
  if (reasons.length === 0 && live.lost === 0) return null;
  return (
    <Section title="Packets that were not read">
      {live.lost > 0 && <Text>{`${count(live.lost, 'packet')} lost here: this computer could not take them in.`}</Text>}
      {reasons.map(([reason, packets]) => (
        <Text key={reason} kind="small" className="tabular-nums">
          {`${count(packets, 'packet')}: ${reason.replaceAll('-', ' ')}`}
        </Text>
      ))}
    </Section>
  );
}

export function HearingSections(given: Given) {
  return (
    <>
      <Listed {...given} />
      <Groups {...given} />
      <AlsoHeard {...given} />
      <NotRead live={given.live} />
    </>
  );
}
