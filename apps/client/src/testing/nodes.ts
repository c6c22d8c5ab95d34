/** Nodes as they answer, for screens. */
import type { NodePortReport, NodeReport } from '@taxiarch/core/network/node';

const port = (number: number, portAddress: number): NodePortReport =>
  ({
    number,
    page: 1,
    direction: 'out',
    portAddress,
    sacn: false,
    active: true,
    merging: false,
    ltp: false,
    rdm: false,
  }) as unknown as NodePortReport;

/** A node with two outputs; what is left out is as anybody would have it. */
export const nodeAt = (address: string, name: string, mac: string, over: Partial<NodeReport> = {}): NodeReport => ({
  address,
  mac,
  shortName: name,
  longName: 'A box on the quay',
  report: '#0001',
  kind: 'node',
  firmware: '1.0',
  oem: 0xff,
  indicators: 'normal',
  panelOnly: false,
  sacnCapable: true,
  rdmSwitch: false,
  directionSwitch: true,
  failSafe: null,
  dhcp: false,
  mask: '255.0.0.0',
  gateway: '',
  priority: 100,
  ports: [port(1, 3), port(2, 4)],
  partOf: '',
  alsoHere: [],
  alsoAt: [],
  gone: false,
  firstSeen: 10_000,
  lastSeen: 99_000,
  ...over,
});
