/** Nodes as they answer polls, beside the demo's plan. */
import { ArtNet, type ArtPollReply, blankPollReply, decodeArtNet, type PollReplyPort } from '../../../protocol/artnet';
import {
  describeNode,
  type HeardMachine,
  heardMachines,
  type MachineEntry,
  matchMachines,
  type NodeReport,
  pushPackets,
  type Drift,
} from '..';
import { nightFerry } from '../../../whole/demo';
import { type Machine, type ShowRecords } from '../../../show/records';

export const ferry = nightFerry();

export const universes = new Map(ferry.universe.map((one) => [one.number, one]));

export const byName = (name: string, records: ShowRecords = ferry): Machine =>
  records.machine.find((one) => one.name === name)!;

export const macOf = ({ interfaces }: Machine): Uint8Array =>
  Uint8Array.from(interfaces[0]!.mac.split(':'), (pair) => parseInt(pair, 16));

export const BLANK: PollReplyPort = { type: 0, goodInput: 0, goodOutputA: 0, goodOutputB: 0x80, swIn: 0, swOut: 0 };

export const sacnOut = (wire: number): PollReplyPort => ({
  ...BLANK,
  type: ArtNet.PORT_CAN_OUTPUT,
  goodOutputA: ArtNet.OUTPUT_SENDING | ArtNet.OUTPUT_FROM_SACN,
  goodOutputB: 0,
  swOut: wire,
});

/** Pages of the Car deck node as it should answer, with changes. */
export function carDeck(
  change: (page: Omit<ArtPollReply, 'kind'>, index: number) => Partial<ArtPollReply> = () => ({}),
): Map<number, ArtPollReply> {
  const plan = byName('Car deck node');
  const ports = [[2, 3, 4, 5].map(sacnOut), [sacnOut(7), sacnOut(8), BLANK, BLANK]];
  return new Map(
    ports.map((four, i) => {
      const page = {
        ...blankPollReply('127.0.0.33', macOf(plan)),
        version: 0x0109,
        portName: 'Car deck node',
        portCount: 4,
        ports: four,
        bindIndex: i + 1,
        status2: 0x9c,
        status3: ArtNet.STATUS3_FAIL_SUPPORTED | ArtNet.STATUS3_DIRECTION_SWITCH,
      };
      return [i + 1, { kind: 'pollReply', ...page, ...change(page, i) }];
    }),
  );
}

export const nodeOf = (pages: Map<number, ArtPollReply>, over: Partial<NodeReport> = {}): NodeReport => ({
  ...describeNode(pages, { kind: 'ipProgReply', ip: '', mask: '255.0.0.0', gateway: '', port: 0x1936, dhcp: false }),
  address: '127.0.0.33',
  gone: false,
  firstSeen: 1,
  lastSeen: 2,
  ...over,
});

export const heardOf = (node: NodeReport): HeardMachine =>
  heardMachines({ nodes: [node], discovered: [], universes: [] })[0]!;

export const entryOf = (node: NodeReport, records: ShowRecords = ferry): MachineEntry =>
  matchMachines(records, [heardOf(node)]).find(({ heard }) => heard)!;

/** What a push would send, read again; it must not be refused. */
export function sent(plan: Machine, node: NodeReport, drift: readonly Drift[]) {
  const packets = pushPackets(plan, universes, node, drift);
  if (!packets.ok) throw new Error(packets.why);
  return packets.value.map((packet) => {
    const decoded = decodeArtNet(packet);
    return decoded.ok ? decoded.value : undefined;
  });
}
