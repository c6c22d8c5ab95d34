/** Two programs and a plug on one computer: what has to be so, and how much of it can be seen from here. */
import { View } from 'react-native';
import type { InterfacesReply, LiveReport } from '@taxiarch/core/whole/contract';
import { useInterfaces, useLive } from '@/data/live';
import { Fold, Screen, Section, Sentence, StateWord, Text, count } from '@/ui';

interface Step {
  readonly title: string;
  readonly how: string;
  /** What is seen of it; undefined where this program cannot see it */
  readonly seen: { readonly fine: boolean; readonly says: string } | undefined;
}

/** Streams and nodes of other programs of this very computer. */
function stepsOf(live: LiveReport, { interfaces, inUse, artnetInUse }: InterfacesReply): Step[] {
  const own = new Set(interfaces.map(({ address }) => address));
  const isHere = (address: string) => own.has(address) || address.startsWith('127.');
  const streams = live.universes.flatMap(({ streams: all }) => all).filter(({ lost, own: ours }) => !lost && !ours);
  const local = streams.filter(({ address }) => isHere(address));
  const names = [...new Set(local.map(({ name, address }) => name || address))];
  const nodes = live.nodes.filter(({ gone, address }) => !gone && isHere(address));
  const plugs = live.plugs ?? [];
  const loop = inUse?.loopback ?? false;
  const apart = artnetInUse && artnetInUse.address !== inUse?.address ? `, and for Art-Net ${artnetInUse.address}` : '';
  const used = inUse ? `${inUse.name}, ${inUse.address}${apart}` : '';
  return [
    {
      title: 'One interface for both programs',
      how: 'Choose the same one in both: a wired one if there is a network, otherwise the virtual one of this system, which is named below.',
      // Which one the other program uses is known only by what is heard of it there.
      seen: inUse
        ? local.length > 0
          ? { fine: true, says: `Taxiarch uses ${used}, and hears the other program there.` }
          : undefined
        : { fine: false, says: 'The interface that Taxiarch is to use is gone.' },
    },
    {
      title: 'The interface has an address though no cable is in',
      how: 'Loopback always has one. Some programs cannot choose it: give a virtual interface an address, as below.',
      seen: inUse
        ? {
            fine: inUse.up,
            says: `${inUse.address} is ${inUse.up ? 'there' : 'down'}${loop ? ': loopback, this computer only' : ''}.`,
          }
        : undefined,
    },
    {
      title: 'The other program sends there',
      how: 'In the other program switch sACN or Art-Net on, and choose that interface.',
      seen: {
        fine: local.length > 0,
        says:
          local.length > 0
            ? `Heard from this computer: ${names.slice(0, 4).join(', ')}, ${count(local.length, 'stream')}.`
            : 'No stream of another program of this computer is heard.',
      },
    },
    {
      title: 'Both may use the same UDP ports',
      how: 'Multicast and broadcast reach both programs; unicast reaches only one of two that share a port. For Art-Net give them two addresses of the interface, or let the sender broadcast.',
      seen:
        nodes.length > 0
          ? {
              fine: true,
              says: `Beside Taxiarch ${count(nodes.length, 'program')} of this computer ${nodes.length === 1 ? 'answers' : 'answer'} Art-Net polls.`,
            }
          : undefined,
    },
    {
      title: 'The plug belongs to one program',
      how: 'A serial port is open for one program at a time: close it in the other one.',
      seen:
        plugs.length === 0
          ? undefined
          : {
              fine: plugs.every(({ state }) => state === 'runs'),
              says: plugs.every(({ state }) => state === 'runs')
                ? `${count(plugs.length, 'adapter')} open here.`
                : (plugs.find(({ state }) => state !== 'runs')?.why ?? ''),
            },
    },
  ];
}

const SYSTEMS: readonly (readonly [system: string, lines: readonly string[]])[] = [
  [
    'Windows: the loopback adapter',
    [
      'Device Manager, Action, Add legacy hardware, Network adapters, Microsoft KM-TEST Loopback Adapter',
      'New-NetIPAddress -InterfaceAlias "Ethernet 2" -IPAddress 2.0.0.10 -PrefixLength 8',
    ],
  ],
  [
    'macOS: a second address of loopback',
    ['sudo ifconfig lo0 alias 2.0.0.10 255.0.0.0', 'sudo route add -net 239.255.0.0/16 127.0.0.1'],
  ],
  [
    'Linux: a dummy interface',
    [
      'sudo ip link add show0 type dummy',
      'sudo ip addr add 2.0.0.10/8 dev show0',
      'sudo ip link set show0 up multicast on',
    ],
  ],
];

export function SameComputerPage() {
  const live = useLive();
  const { data } = useInterfaces();
  const steps = live && data ? stepsOf(live, data) : [];
  const wrong = steps.filter(({ seen }) => seen && !seen.fine).length;
  const unseen = steps.filter(({ seen }) => !seen).length;
  return (
    <Screen
      sentence={
        <Sentence>
          {steps.length === 0
            ? 'Looking…'
            : wrong > 0
              ? `${count(wrong, 'step')} of ${steps.length} not so yet.`
              : `${steps.length - unseen} of ${steps.length} steps seen to be so${unseen > 0 ? `; ${unseen} cannot be seen from here` : ''}.`}
        </Sentence>
      }
    >
      <Text>A console, a visualiser and a DMX adapter on one computer, without any network.</Text>
      <View role="list" aria-label="Steps">
        {steps.map(({ title, how, seen }, i) => (
          <View key={title} role="listitem" className="gap-1 border-b border-line py-3">
            <View className="flex-row items-center gap-3">
              <Text kind="strong" className="flex-1">
                {i + 1}. {title}
              </Text>
              <StateWord state={seen ? (seen.fine ? 'fine' : 'must fix') : 'not known'} />
            </View>
            {seen && <Text kind="small">{seen.says}</Text>}
            {!seen?.fine && <Text>{how}</Text>}
          </View>
        ))}
      </View>
      <Section title="A virtual interface">
        {SYSTEMS.map(([system, lines]) => (
          <Fold key={system} title={system} of="a virtual interface">
            {lines.map((line) => (
              <Text key={line} kind="monoSmall" selectable>
                {line}
              </Text>
            ))}
          </Fold>
        ))}
      </Section>
    </Screen>
  );
}
