/** What a device's poll replies say of it, in words of the trade. */
import { type ArtIpProgReply, ArtNet, type ArtPollReply, portsOf } from '../../protocol/artnet';
import { printable } from '../../base/bytes';
import type { FailSafe, NodeReport } from './nodeReport';

const STYLES: Readonly<Record<number, NodeReport['kind']>> = {
  [ArtNet.StNode]: 'node',
  [ArtNet.StController]: 'console',
  [ArtNet.StMedia]: 'media server',
  [ArtNet.StVisual]: 'visualiser',
};

const FAIL_SAFES: Readonly<Record<number, FailSafe>> = {
  [ArtNet.STATUS3_FAIL_HOLD]: 'hold',
  [ArtNet.STATUS3_FAIL_ZERO]: 'black',
  [ArtNet.STATUS3_FAIL_FULL]: 'full',
  [ArtNet.STATUS3_FAIL_SCENE]: 'look',
};

export const hexMac = (bytes: Uint8Array): string =>
  [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join(':');

function indicatorsOf(status1: number): NodeReport['indicators'] {
  const { locate, mute, normal } = ArtNet.STATUS1_INDICATORS;
  const bits = status1 & normal;
  return bits === locate ? 'locate' : bits === mute ? 'mute' : bits === normal ? 'normal' : 'unknown';
}

/** All pages of a device, by BindIndex, joined; `ip` is its last answer to IpProg. */
export function describeNode(
  pages: ReadonlyMap<number, ArtPollReply>,
  ip: ArtIpProgReply | undefined,
): Omit<NodeReport, 'address' | 'gone' | 'firstSeen' | 'lastSeen'> {
  const inOrder = [...pages.entries()].sort(([a], [b]) => a - b);
  const root = inOrder[0]![1];
  let before = 0;
  const ports = inOrder.flatMap(([page, reply]) => {
    const here = portsOf(reply).map((port) => ({ ...port, page, number: before + port.index + 1 }));
    before += reply.portCount;
    return here;
  });
  return {
    mac: hexMac(root.mac),
    shortName: printable(root.portName),
    longName: printable(root.longName),
    report: printable(root.nodeReport),
    kind: STYLES[root.style] ?? 'other',
    firmware: `${root.version >> 8}.${root.version & 0xff}`,
    oem: root.oem,
    indicators: indicatorsOf(root.status1),
    panelOnly: (root.status1 & 0x30) === ArtNet.STATUS1_AUTHORITY_PANEL,
    sacnCapable: (root.status2 & ArtNet.STATUS2_SACN_CAPABLE) !== 0,
    rdmSwitch: (root.status2 & ArtNet.STATUS2_RDM_SWITCH) !== 0,
    directionSwitch: (root.status3 & ArtNet.STATUS3_DIRECTION_SWITCH) !== 0,
    failSafe: root.status3 & ArtNet.STATUS3_FAIL_SUPPORTED ? (FAIL_SAFES[root.status3 & 0xc0] ?? null) : null,
    dhcp: ip?.dhcp ?? (root.status2 & ArtNet.STATUS2_USES_DHCP) !== 0,
    mask: ip?.mask ?? '',
    gateway: ip?.gateway ?? '',
    priority: root.acnPriority,
    ports,
    // Who else is there only those can tell who hear all.
    partOf: '',
    alsoHere: [],
    alsoAt: [],
  };
}
