/** Devices that answer Art-Net polls, all the pages of each in one. */
import type { NodePortReport, NodeReport } from '@taxiarch/core/contract';
import { ArtNet, portsOf, type ArtPollReply } from '@taxiarch/core/artnet';

interface Device {
  readonly pages: Map<number, { reply: ArtPollReply; seen: number }>;
  readonly firstSeen: number;
  lastSeen: number;
}

/** Three polls missed, and a little for the answer's way. */
const GONE_AFTER_MS = ArtNet.POLL_INTERVAL_MS * ArtNet.MISSED_POLLS + 500;

const STYLES: Readonly<Record<number, NodeReport['kind']>> = {
  [ArtNet.StNode]: 'node',
  [ArtNet.StController]: 'console',
  [ArtNet.StMedia]: 'media server',
  [ArtNet.StVisual]: 'visualiser',
};

const hex = (bytes: Uint8Array): string => [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join(':');

export class NodeTable {
  private readonly devices = new Map<string, Device>();

  note(reply: ArtPollReply, address: string, now: number): void {
    let device = this.devices.get(address);
    if (!device) {
      device = { pages: new Map(), firstSeen: now, lastSeen: now };
      this.devices.set(address, device);
    }
    device.lastSeen = now;
    device.pages.set(Math.max(1, reply.bindIndex), { reply, seen: now });
  }

  /** The name of whoever sits at an address; empty if nobody there has answered. */
  nameOf(address: string): string {
    const pages = this.devices.get(address)?.pages.values();
    return pages?.next().value?.reply.portName ?? '';
  }

  private static ports(device: Device): NodePortReport[] {
    const pages = [...device.pages.entries()].sort(([a], [b]) => a - b);
    return pages.flatMap(([, { reply }]) => portsOf(reply)).map((port, i) => ({ number: i + 1, ...port }));
  }

  /** Addresses of present devices with an output on this Port-Address, and whether any merges LTP. */
  listeners(portAddress: number, now: number): { addresses: string[]; ltp: boolean } {
    const addresses: string[] = [];
    let ltp = false;
    for (const [address, device] of this.devices) {
      if (now - device.lastSeen > GONE_AFTER_MS) continue;
      const there = NodeTable.ports(device).filter(
        (port) => port.direction === 'out' && port.portAddress === portAddress,
      );
      if (there.length > 0) addresses.push(address);
      ltp ||= there.some((port) => port.ltp);
    }
    return { addresses, ltp };
  }

  report(now: number, epoch: number): NodeReport[] {
    return [...this.devices.entries()].map(([address, device]) => {
      const root = [...device.pages.entries()].sort(([a], [b]) => a - b)[0]![1].reply;
      return {
        address,
        mac: hex(root.mac),
        shortName: root.portName,
        longName: root.longName,
        report: root.nodeReport,
        kind: STYLES[root.style] ?? 'other',
        firmware: root.version,
        ports: NodeTable.ports(device),
        gone: now - device.lastSeen > GONE_AFTER_MS,
        firstSeen: Math.round(device.firstSeen + epoch),
        lastSeen: Math.round(device.lastSeen + epoch),
      };
    });
  }
}
