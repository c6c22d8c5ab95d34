/** Devices that answer Art-Net polls, all the pages of each in one. */
import { type ArtIpProgReply, ArtNet, type ArtPollReply, portsOf } from '@taxiarch/core/artnet';
import { describeNode, hexMac, type NodeReport } from '@taxiarch/core/node';

interface Device {
  readonly mac: string;
  readonly pages: Map<number, ArtPollReply>;
  readonly firstSeen: number;
  lastSeen: number;
  ip: ArtIpProgReply | undefined;
  ipAsked: number;
}

/** Three polls missed, and a little for the answer's way. */
const GONE_AFTER_MS = ArtNet.POLL_INTERVAL_MS * ArtNet.MISSED_POLLS + 500;
const NO_MAC = '00:00:00:00:00:00';

export class NodeTable {
  private readonly devices = new Map<string, Device>();

  note(reply: ArtPollReply, address: string, now: number): void {
    const mac = hexMac(reply.mac);
    let device = this.devices.get(address);
    if (!device || device.mac !== mac) {
      device = { mac, pages: new Map(), firstSeen: now, lastSeen: now, ip: undefined, ipAsked: -Infinity };
      this.devices.set(address, device);
      this.forgetElsewhere(mac, address);
    }
    device.lastSeen = now;
    device.pages.set(Math.max(1, reply.bindIndex), reply);
  }

  /** A machine that answers at a new address has left its old one. */
  private forgetElsewhere(mac: string, address: string): void {
    if (mac === NO_MAC) return;
    for (const [other, device] of this.devices) if (other !== address && device.mac === mac) this.devices.delete(other);
  }

  noteIp(reply: ArtIpProgReply, address: string): void {
    const device = this.devices.get(address);
    if (device) device.ip = reply;
  }

  /** Present devices whose mask has not been asked for since `before`; they count as asked now. */
  toAskForIp(now: number, before: number): string[] {
    return [...this.devices].flatMap(([address, device]) => {
      if (device.ipAsked > before || this.isGone(device, now)) return [];
      device.ipAsked = now;
      return [address];
    });
  }

  private isGone(device: Device, now: number): boolean {
    return now - device.lastSeen > GONE_AFTER_MS;
  }

  /** The name of whoever sits at an address; empty if nobody there has answered. */
  nameOf(address: string): string {
    const pages = this.devices.get(address)?.pages.values();
    return pages?.next().value?.portName ?? '';
  }

  /** Where a machine answers now, by its hardware address; by `address` if it tells none. */
  whereIs(mac: string, address: string): { address: string; lastSeen: number } | undefined {
    const found = [...this.devices].find(([at, device]) => (mac === NO_MAC ? at === address : device.mac === mac));
    return found && { address: found[0], lastSeen: found[1].lastSeen };
  }

  /** Addresses of present devices with an output on this Port-Address by Art-Net, and whether any merges LTP. */
  listeners(portAddress: number, now: number): { addresses: string[]; ltp: boolean } {
    const addresses: string[] = [];
    let ltp = false;
    for (const [address, device] of this.devices) {
      if (this.isGone(device, now)) continue;
      const there = [...device.pages.values()]
        .flatMap(portsOf)
        .filter((port) => port.direction === 'out' && !port.sacn && port.portAddress === portAddress);
      if (there.length > 0) addresses.push(address);
      ltp ||= there.some((port) => port.ltp);
    }
    return { addresses, ltp };
  }

  report(now: number, epoch: number): NodeReport[] {
    return [...this.devices.entries()].map(([address, device]) => ({
      ...describeNode(device.pages, device.ip),
      address,
      gone: this.isGone(device, now),
      firstSeen: Math.round(device.firstSeen + epoch),
      lastSeen: Math.round(device.lastSeen + epoch),
    }));
  }
}
