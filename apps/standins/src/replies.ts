/** A node's poll reply, page by page, true to the byte (Art-Net 4, ArtPollReply). */
import {
  ArtNet,
  type ArtPollReply,
  blankPollReply,
  nodeReportText,
  type PollReplyPort,
  PORTS_PER_PAGE,
} from '@taxiarch/core/protocol/artnet';
import type { LossKind, Model } from '@taxiarch/core/show/records';
import type { BoxSettings, BoxSetup, PortSettings } from './settings';

/** What passes through a port now. */
export interface PortTraffic {
  readonly active: boolean;
  readonly merging: boolean;
}

const FAIL_BITS: Readonly<Record<LossKind, number>> = {
  hold: ArtNet.STATUS3_FAIL_HOLD,
  'hold-black': ArtNet.STATUS3_FAIL_ZERO,
  fade: ArtNet.STATUS3_FAIL_ZERO,
  full: ArtNet.STATUS3_FAIL_FULL,
  look: ArtNet.STATUS3_FAIL_SCENE,
};

function portBytes(port: PortSettings, { active, merging }: PortTraffic): PollReplyPort {
  const sacn = port.protocol === 'sacn';
  if (port.use === 'in')
    return {
      type: ArtNet.PORT_CAN_INPUT,
      goodInput:
        (active ? ArtNet.INPUT_DATA_RECEIVED : 0) |
        (port.disabled ? ArtNet.INPUT_DISABLED : 0) |
        (sacn ? ArtNet.INPUT_TO_SACN : 0),
      goodOutputA: 0,
      goodOutputB: 0,
      swIn: port.low,
      swOut: 0,
    };
  return {
    type: port.use === 'off' ? 0 : ArtNet.PORT_CAN_OUTPUT,
    goodInput: 0,
    goodOutputA:
      (active ? ArtNet.OUTPUT_SENDING : 0) |
      (merging ? ArtNet.OUTPUT_MERGING : 0) |
      (port.merge === 'ltp' ? ArtNet.OUTPUT_MERGE_LTP : 0) |
      (sacn ? ArtNet.OUTPUT_FROM_SACN : 0),
    goodOutputB: port.rdm ? 0 : ArtNet.OUTPUT_RDM_DISABLED,
    swIn: 0,
    swOut: port.low,
  };
}

function status(model: Model, settings: BoxSettings) {
  const authority = model.remote ? ArtNet.STATUS1_AUTHORITY_NETWORK : ArtNet.STATUS1_AUTHORITY_PANEL;
  const loss = settings.ports.find(({ use }) => use === 'out')?.loss.kind ?? 'hold';
  return {
    status1: ArtNet.STATUS1_INDICATORS[settings.indicators] | authority | (model.rdm ? ArtNet.STATUS1_RDM : 0),
    status2:
      ArtNet.STATUS2_PORT_ADDRESS_15_BIT |
      (model.rdm ? ArtNet.STATUS2_RDM_SWITCH : 0) |
      (model.protocols.includes('sacn') ? ArtNet.STATUS2_SACN_CAPABLE : 0) |
      (model.ipProg ? ArtNet.STATUS2_DHCP_CAPABLE : 0) |
      (settings.dhcp ? ArtNet.STATUS2_USES_DHCP : 0),
    status3:
      FAIL_BITS[loss] |
      (model.losses.length > 1 ? ArtNet.STATUS3_FAIL_SUPPORTED : 0) |
      (model.directions.length > 1 ? ArtNet.STATUS3_DIRECTION_SWITCH : 0),
  };
}

/** All pages of a node; `counter` rises with each answer. */
export function replyPages(
  { model, mac, firmware }: BoxSetup,
  settings: BoxSettings,
  traffic: readonly PortTraffic[],
  counter: number,
): Omit<ArtPollReply, 'kind'>[] {
  return settings.pages.map(({ net, sub }, page) => {
    const first = page * model.perPage;
    const here = settings.ports.slice(first, first + Math.min(model.perPage, PORTS_PER_PAGE));
    return {
      ...blankPollReply(settings.address, Uint8Array.from(mac)),
      version: (firmware[0] << 8) | firmware[1],
      portName: settings.shortName,
      longName: settings.longName,
      nodeReport: nodeReportText(counter, 'Power on and well'),
      netSwitch: net,
      subSwitch: sub,
      portCount: here.length,
      ports: here.map((port, i) => portBytes(port, traffic[first + i]!)),
      acnPriority: settings.priority,
      bindIndex: page + 1,
      refreshRate: model.rate,
      ...status(model, settings),
    };
  });
}
