/** What Address, Input and IpProg do to a node's settings (Art-Net 4). */
import { type ArtAddress, type ArtInput, type ArtIpProg, ArtNet } from '@taxiarch/core/protocol/artnet';
import { ipNumber, isLoopback, maskLength } from '@taxiarch/core/network/ip';
import type { LossKind, Model } from '@taxiarch/core/show/records';
import type { BoxSettings } from './settings';

const FAILS: Readonly<Record<number, LossKind>> = {
  [ArtNet.AcFailHold]: 'hold',
  [ArtNet.AcFailZero]: 'hold-black',
  [ArtNet.AcFailFull]: 'full',
  [ArtNet.AcFailScene]: 'look',
};

/** What is not a setting but happens at once. */
export interface Acts {
  cancelMerge(): void;
  clear(port: number): void;
  /** Levels that leave a port now, to be stored */
  look(port: number): readonly number[];
}

/** Carries out an Address packet, as far as the model can. Settings of other pages stay. */
export function obeyAddress(settings: BoxSettings, model: Model, message: ArtAddress, acts: Acts): void {
  const page = Math.max(1, message.bindIndex) - 1;
  const there = settings.pages[page];
  if (!model.remote || !there) return;
  if (message.portName !== '') settings.shortName = message.portName;
  if (message.longName !== '') settings.longName = message.longName;
  const programmed = (byte: number) => (byte & ArtNet.PROGRAM) !== 0;
  if (programmed(message.netSwitch)) there.net = message.netSwitch & 0x7f;
  if (programmed(message.subSwitch)) there.sub = message.subSwitch & 0x0f;
  const first = page * model.perPage;
  for (let i = 0; i < model.perPage; i += 1) {
    const port = settings.ports[first + i];
    if (!port) continue;
    const byte = port.use === 'in' ? message.swIn[i]! : message.swOut[i]!;
    if (programmed(byte)) port.low = byte & 0x0f;
  }
  if (message.acnPriority <= 200) settings.priority = message.acnPriority;
  obeyCommand(settings, model, message.command, first, acts);
}

function obeyCommand(settings: BoxSettings, model: Model, command: number, first: number, acts: Acts): void {
  if (command === ArtNet.AcCancelMerge) acts.cancelMerge();
  else if (command === ArtNet.AcLedNormal) settings.indicators = 'normal';
  else if (command === ArtNet.AcLedMute) settings.indicators = 'mute';
  else if (command === ArtNet.AcLedLocate) settings.indicators = 'locate';
  else if (command === ArtNet.AcFailRecord) settings.ports.forEach((port, i) => (port.look = acts.look(i)));
  const fail = FAILS[command];
  if (fail !== undefined && model.losses.includes(fail))
    for (const port of settings.ports) port.loss = { kind: fail, after: 0, over: 0 };
  const place = first + (command & 0x0f);
  const port = (command & 0x0f) < model.perPage ? settings.ports[place] : undefined;
  if (!port) return;
  switch (command & 0xf0) {
    case ArtNet.AcMergeLtp:
      if (model.merges.includes('ltp')) port.merge = 'ltp';
      return;
    case ArtNet.AcMergeHtp:
      if (model.merges.includes('htp')) port.merge = 'htp';
      return;
    case ArtNet.AcDirectionTx:
      if (model.directions.includes('out')) port.use = 'out';
      return;
    case ArtNet.AcDirectionRx:
      if (model.directions.includes('in')) port.use = 'in';
      return;
    case ArtNet.AcArtNetSel:
      if (model.protocols.includes('artnet')) port.protocol = 'artnet';
      return;
    case ArtNet.AcAcnSel:
      if (model.protocols.includes('sacn')) port.protocol = 'sacn';
      return;
    case ArtNet.AcClearOp:
      return acts.clear(place);
    case ArtNet.AcRdmEnable:
      if (model.rdm) port.rdm = true;
      return;
    case ArtNet.AcRdmDisable:
      port.rdm = false;
  }
}

/** Switches inputs on and off. */
export function obeyInput(settings: BoxSettings, model: Model, { bindIndex, disabled }: ArtInput): void {
  if (!model.remote) return;
  const first = (Math.max(1, bindIndex) - 1) * model.perPage;
  for (let i = 0; i < model.perPage; i += 1) {
    const port = settings.ports[first + i];
    if (port?.use === 'in') port.disabled = disabled[i] ?? false;
  }
}

/** Carries out an IpProg as far as it makes sense on loopback; what does not is left as it is. */
export function obeyIpProg(settings: BoxSettings, model: Model, { command, ip, mask, gateway }: ArtIpProg): void {
  if (!model.ipProg || !(command & ArtNet.IPPROG_ENABLE)) return;
  if (command & ArtNet.IPPROG_DHCP) {
    settings.dhcp = true;
    return;
  }
  const number = ipNumber(ip);
  if (command & ArtNet.IPPROG_ADDRESS && number !== undefined && isLoopback(number)) {
    settings.address = ip;
    settings.dhcp = false;
  }
  if (command & ArtNet.IPPROG_MASK && maskLength(mask) !== undefined) settings.mask = mask;
  if (command & ArtNet.IPPROG_GATEWAY) settings.gateway = gateway;
}
