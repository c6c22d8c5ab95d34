/** This computer: its interfaces as they are now, which one each protocol uses, and what stands against it. */
import { View } from 'react-native';
import { type InterfaceInfo, interfaceWarnings } from '@taxiarch/core/network/ip';
import type { InterfacesReply, Settings } from '@taxiarch/core/whole/contract';
import { call } from '@/data/api';
import { useInterfaces, useLive, useSettings } from '@/data/live';
import { useShow } from '@/data/show';
import { Notice, Pick, Screen, Section, Sentence, Text, count } from '@/ui';
import { HearingSections } from './HearingSections';

const MEDIA: Readonly<Record<InterfaceInfo['medium'], string>> = {
  wired: 'wired',
  wireless: 'wireless',
  loopback: 'loopback, this computer only',
  virtual: 'virtual',
  unknown: 'of a kind that the system does not tell',
};

const optionsOf = ({ interfaces }: InterfacesReply) => [
  { value: 'plan', label: 'Follow the plan of addresses' },
  { value: 'auto', label: 'The first wired one' },
  ...interfaces.map(({ name, address, medium }) => ({ value: address, label: `${address}, ${name}, ${medium}` })),
];

/** A choice that is gone from the list is shown all the same. */
const withChosen = (options: { value: string; label: string }[], chosen: string) =>
  options.some(({ value }) => value === chosen) ? options : [...options, { value: chosen, label: `${chosen}, gone` }];

interface ChooserGiven {
  readonly data: InterfacesReply;
  readonly settings: Settings;
  readonly change: (changes: Partial<Settings>) => Promise<void>;
}

function Chooser({ data, settings, change }: ChooserGiven) {
  const options = optionsOf(data);
  return (
    <Section title="Which one is used">
      <Pick
        label="For sACN"
        options={withChosen(options, settings.interface)}
        value={settings.interface}
        onChange={(value) => void change({ interface: value })}
      />
      <Pick
        label="For Art-Net"
        options={withChosen([{ value: 'same', label: 'The same as sACN' }, ...options], settings.artnetInterface)}
        value={settings.artnetInterface}
        onChange={(value) => void change({ artnetInterface: value })}
      />
      <Text kind="small">
        In use: sACN {data.inUse?.address ?? 'none'}, Art-Net {data.artnetInUse?.address ?? 'none'}. A change takes
        effect at once; a cable pulled and put back needs nothing.
      </Text>
    </Section>
  );
}

interface Help {
  readonly system: string;
  readonly lines: readonly (readonly [string, string])[];
}

const HELP: readonly Help[] = [
  {
    system: 'Windows, in an administrator’s PowerShell',
    lines: [
      [
        'Let Art-Net and sACN in',
        'New-NetFirewallRule -DisplayName "Taxiarch" -Direction Inbound -Protocol UDP -LocalPort 6454,5568 -Action Allow',
      ],
      ['The network counts as private', 'Set-NetConnectionProfile -InterfaceAlias "Ethernet" -NetworkCategory Private'],
      ['A second address', 'New-NetIPAddress -InterfaceAlias "Ethernet" -IPAddress 2.0.0.10 -PrefixLength 8'],
    ],
  },
  {
    system: 'macOS, in Terminal',
    lines: [
      [
        'Let Node in',
        'sudo /usr/libexec/ApplicationFirewall/socketfilterfw --add "$(which node)" --unblockapp "$(which node)"',
      ],
      ['A second address', 'sudo ifconfig en0 alias 2.0.0.10 255.0.0.0'],
      ['Remove it again', 'sudo ifconfig en0 -alias 2.0.0.10'],
    ],
  },
  {
    system: 'Linux, in a terminal',
    lines: [
      ['Let Art-Net and sACN in (ufw)', 'sudo ufw allow 6454/udp && sudo ufw allow 5568/udp'],
      ['Let them in (firewalld)', 'sudo firewall-cmd --add-port=6454/udp --add-port=5568/udp'],
      ['A second address', 'sudo ip address add 2.0.0.10/8 dev eth0'],
      ['More multicast groups a socket', 'sudo sysctl net.ipv4.igmp_max_memberships=1024'],
      [
        'For a thousand universes and more: let a program that listens hold more packets',
        'sudo sysctl net.core.rmem_max=33554432',
      ],
    ],
  },
];

export function HerePage() {
  const { data, mutate: lookAgain } = useInterfaces();
  const { data: settings, mutate } = useSettings();
  const change = (changes: Partial<Settings>) =>
    call('changeSettings', { body: changes }).then((next) => {
      void mutate(next, { revalidate: false });
      void lookAgain();
    });
  const live = useLive();
  const { records, loaded } = useShow();
  if (!data || !settings || !loaded)
    return <Screen sentence={<Sentence>Looking at this computer…</Sentence>}>{null}</Screen>;
  const said = [
    ...new Set([
      ...interfaceWarnings(data.inUse, 'sACN', records),
      ...interfaceWarnings(data.artnetInUse, 'Art-Net', records),
    ]),
  ];
  const both = data.inUse?.address === data.artnetInUse?.address;
  return (
    <Screen
      sentence={
        <Sentence>
          {data.inUse
            ? `Taxiarch listens on ${data.inUse.address}${both ? '' : ` for sACN, on ${data.artnetInUse?.address ?? 'nothing'} for Art-Net`}.`
            : 'Taxiarch has no interface to listen on.'}
        </Sentence>
      }
    >
      {live?.trouble ? <Notice state="must fix">{live.trouble}</Notice> : null}
      {said.map((sentence) => (
        <Notice key={sentence} state="look at">
          {sentence}
        </Notice>
      ))}
      <Chooser data={data} settings={settings} change={change} />
      <HearingSections settings={settings} change={change} live={live} />
      <Section
        title={`${count(data.interfaces.length, 'address', 'addresses')} of this computer, as the system gives them now`}
      >
        {data.interfaces.map(({ name, address, netmask, mac, medium, up }) => (
          <View key={`${name} ${address}`} className="gap-1 border-b border-line py-2">
            <View className="flex-row items-center gap-3">
              <Text kind="strong" className="flex-1">
                {name}
              </Text>
              <Text kind="small" tone={up ? 'fine' : 'warn'}>
                {up ? '● up' : '○ down'}
              </Text>
            </View>
            <Text kind="mono">
              {address} / {netmask}
            </Text>
            <Text kind="small">
              {MEDIA[medium]} · <Text kind="monoSmall">{mac}</Text>
            </Text>
          </View>
        ))}
      </Section>
      <Section title="Firewalls, second addresses, many universes">
        <Text kind="small">Put your own interface’s name and address in; 2.0.0.10 is an example.</Text>
        {HELP.map(({ system, lines }) => (
          <View key={system} className="gap-2">
            <Text kind="strong">{system}</Text>
            {lines.map(([what, command]) => (
              <View key={what} className="gap-1">
                <Text kind="small">{what}</Text>
                <Text kind="mono" selectable className="rounded bg-raised p-2">
                  {command}
                </Text>
              </View>
            ))}
          </View>
        ))}
      </Section>
    </Screen>
  );
}
