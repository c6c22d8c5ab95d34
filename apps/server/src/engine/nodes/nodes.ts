/** Devices that answer Art-Net polls, all the pages of each in one. */
import { type ArtIpProgReply, ArtNet, type ArtPollReply, portsOf } from '@taxiarch/core/protocol/artnet';
import { describeNode, hexMac, type NodeReport } from '@taxiarch/core/network/node';
import type { PlannedMachines } from '../../bridge/engineMessages';

interface Device {
  readonly address: string;
  readonly mac: string;
  readonly pages: Map<number, ArtPollReply>;
  /** When each page was heard last */
  readonly heardAt: Map<number, number>;
  /** Of the product that it is part of; its own address for most */
  readonly root: string;
  /** Since it answered last, its hardware appeared elsewhere, or other hardware at its address. */
  left: boolean;
  readonly firstSeen: number;
  lastSeen: number;
  /** Of the time since then, how long this computer could not have heard it, ms */
  excused: number;
  ip: ArtIpProgReply | undefined;
  ipAsked: number;
}

/** Three polls missed, and a little for the answer's way. */
const GONE_AFTER_MS = ArtNet.POLL_INTERVAL_MS * ArtNet.MISSED_POLLS + 500;
const NO_MAC = '00:00:00:00:00:00';
/** Devices remembered; strangers beyond are counted only. */
const MOST_DEVICES = 1024;
/** Strangers that are gone are forgotten after this; what the show plans is remembered. */
const FORGET_STRANGER_MS = 60_000;
/** Strangers that live reports tell of, and devices on a page of the whole list */
const STRANGERS_REPORTED = 100;
const NODES_A_PAGE = 100;
/** Addresses counted beyond those remembered */
const MOST_COUNTED = 65_536;

const keyOf = (address: string, mac: string): string => `${address} ${mac}`;

export class NodeTable {
  /** By address and hardware address: two boxes may claim one of either */
  private readonly devices = new Map<string, Device>();
  /** The device of each address that was heard last */
  private readonly byAddress = new Map<string, Device>();
  /** Who answered and found no room, and when */
  private readonly counted = new Map<string, number>();
  private planned: { addresses: ReadonlySet<string>; macs: ReadonlySet<string> } = {
    addresses: new Set(),
    macs: new Set(),
  };

  /** Machines that the show plans: they are always remembered and reported. */
  expect({ addresses, macs }: PlannedMachines): void {
    this.planned = { addresses: new Set(addresses), macs: new Set(macs) };
  }

  private isPlanned(address: string, mac: string): boolean {
    return this.planned.addresses.has(address) || this.planned.macs.has(mac);
  }

  note(reply: ArtPollReply, address: string, now: number): void {
    const mac = hexMac(reply.mac);
    const key = keyOf(address, mac);
    let device = this.devices.get(key);
    if (!device) {
      if (!this.makeRoom(address, mac)) return this.count(address, now);
      device = {
        address,
        mac,
        pages: new Map(),
        heardAt: new Map(),
        root: reply.bindIp === '0.0.0.0' ? address : reply.bindIp,
        left: false,
        firstSeen: now,
        lastSeen: now,
        excused: 0,
        ip: undefined,
        ipAsked: -Infinity,
      };
      // Whether they have left or are there as well shows when they are asked again.
      for (const other of this.devices.values()) if (isSame(other, device)) other.left = true;
      this.devices.set(key, device);
    }
    device.left = false;
    device.lastSeen = now;
    device.excused = 0;
    device.pages.set(Math.max(1, reply.bindIndex), reply);
    device.heardAt.set(Math.max(1, reply.bindIndex), now);
    this.byAddress.set(address, device);
  }

  private count(address: string, now: number): void {
    if (this.counted.size < MOST_COUNTED || this.counted.has(address)) this.counted.set(address, now);
  }

  /** Whether a new device may be remembered: a planned one takes the place of a stranger. */
  private makeRoom(address: string, mac: string): boolean {
    if (this.devices.size < MOST_DEVICES) return true;
    if (!this.isPlanned(address, mac)) return false;
    const stranger = [...this.devices.values()].find((one) => !this.isPlanned(one.address, one.mac));
    if (stranger) {
      this.remove(stranger);
      this.count(stranger.address, stranger.lastSeen);
    }
    return stranger !== undefined;
  }

  private remove(device: Device): void {
    this.devices.delete(keyOf(device.address, device.mac));
    if (this.byAddress.get(device.address) !== device) return;
    this.byAddress.delete(device.address);
    const other = [...this.devices.values()].find(({ address }) => address === device.address);
    if (other) this.byAddress.set(device.address, other);
  }

  /** Forgets strangers that are long gone, and devices that another took the place of. */
  sweep(now: number): void {
    for (const device of this.devices.values()) {
      if (!this.isGone(device, now)) continue;
      const long = now - device.lastSeen > FORGET_STRANGER_MS && !this.isPlanned(device.address, device.mac);
      if (long || device.left) this.remove(device);
    }
    for (const [address, at] of this.counted) if (now - at > FORGET_STRANGER_MS) this.counted.delete(address);
  }

  noteIp(reply: ArtIpProgReply, address: string): void {
    const device = this.byAddress.get(address);
    if (device) device.ip = reply;
  }

  /** Present devices whose mask has not been asked for since `before`; they count as asked now. */
  toAskForIp(now: number, before: number): string[] {
    return [...this.byAddress].flatMap(([address, device]) => {
      if (device.left || device.ipAsked > before || this.isGone(device, now)) return [];
      device.ipAsked = now;
      return [address];
    });
  }

  private isGone(device: Device, now: number): boolean {
    return now - device.lastSeen - device.excused > GONE_AFTER_MS;
  }

  /** This computer was held up for `ms` until `now`: that nobody answered it meanwhile says nothing of them. */
  excuse(ms: number, now: number): void {
    for (const device of this.devices.values())
      // Of a box that was heard since, only the time after that counts.
      if (!this.isGone(device, now - ms)) device.excused += Math.max(0, Math.min(ms, now - device.lastSeen));
  }

  /** The name of whoever sits at an address; empty if nobody there has answered. */
  nameOf(address: string): string {
    const pages = this.byAddress.get(address)?.pages.values();
    return pages?.next().value?.portName ?? '';
  }

  /** Where a machine answered last, by its hardware address; by `address` if it tells none. */
  whereIs(mac: string, address: string): { address: string; lastSeen: number } | undefined {
    const found = this.find(mac, address);
    return found && { address: found.address, lastSeen: found.lastSeen };
  }

  /** Whether every page that a machine is known to have was heard after `since`. */
  allPagesSince(mac: string, address: string, since: number): boolean {
    const found = this.find(mac, address);
    return found !== undefined && [...found.heardAt.values()].every((at) => at > since);
  }

  private find(mac: string, address: string): Device | undefined {
    let found: Device | undefined;
    for (const device of this.devices.values())
      if (
        (mac === NO_MAC ? device.address === address : device.mac === mac) &&
        !(found && found.lastSeen > device.lastSeen)
      )
        found = device;
    return found;
  }

  /** Addresses of present devices with an output on this Port-Address by Art-Net, and whether any merges LTP. */
  listeners(portAddress: number, now: number): { addresses: string[]; ltp: boolean } {
    const addresses: string[] = [];
    let ltp = false;
    for (const [address, device] of this.byAddress) {
      if (device.left || this.isGone(device, now)) continue;
      const there = [...device.pages.values()]
        .flatMap(portsOf)
        .filter((port) => port.direction === 'out' && !port.sacn && port.portAddress === portAddress);
      if (there.length > 0) addresses.push(address);
      ltp ||= there.some((port) => port.ltp);
    }
    return { addresses, ltp };
  }

  /** Those of the plan, and the others, as they were first heard; two boxes at one address are two. */
  private inOrder(now: number): { planned: Device[]; others: Device[] } {
    const planned: Device[] = [];
    const others: Device[] = [];
    for (const device of this.devices.values()) {
      // One that went while another box answers at its address is not told of any more.
      const isElse = this.byAddress.get(device.address) !== device && this.isGone(device, now);
      if (!device.left && !isElse) (this.isPlanned(device.address, device.mac) ? planned : others).push(device);
    }
    return { planned, others };
  }

  /** Devices that answer and are not in {@link report} */
  more(now: number): number {
    return Math.max(0, this.inOrder(now).others.length - STRANGERS_REPORTED) + this.counted.size;
  }

  report(now: number, epoch: number): NodeReport[] {
    const { planned, others } = this.inOrder(now);
    return this.describe([...planned, ...others.slice(0, STRANGERS_REPORTED)], now, epoch);
  }

  /** A page of all that are remembered, those of the plan first, and how many that are. */
  page(from: number, now: number, epoch: number): { nodes: NodeReport[]; count: number } {
    const { planned, others } = this.inOrder(now);
    const all = [...planned, ...others];
    return { nodes: this.describe(all.slice(from, from + NODES_A_PAGE), now, epoch), count: all.length };
  }

  private describe(devices: readonly Device[], now: number, epoch: number): NodeReport[] {
    const present = [...this.devices.values()].filter((device) => !device.left && !this.isGone(device, now));
    const others = groupBy(present, ({ address, mac }) => [`at ${address}`, ...(mac === NO_MAC ? [] : [mac])]);
    const besides = (key: string, device: Device) => (others.get(key) ?? []).filter((one) => isSame(one, device));
    return devices.map((device) => ({
      ...describeNode(device.pages, device.ip),
      address: device.address,
      partOf: device.root === device.address ? '' : device.root,
      alsoHere: besides(`at ${device.address}`, device).map(({ mac }) => mac),
      alsoAt: besides(device.mac, device).map(({ address }) => address),
      gone: this.isGone(device, now),
      firstSeen: Math.round(device.firstSeen + epoch),
      lastSeen: Math.round(device.lastSeen + epoch),
    }));
  }
}

function groupBy(devices: readonly Device[], keys: (device: Device) => string[]): Map<string, Device[]> {
  const groups = new Map<string, Device[]>();
  for (const device of devices)
    for (const key of keys(device)) {
      const group = groups.get(key);
      if (group) group.push(device);
      else groups.set(key, [device]);
    }
  return groups;
}

/** Whether two claim one address, or one hardware address without being parts of one product. */
const isSame = (a: Device, b: Device): boolean =>
  a !== b && (a.address === b.address || (a.mac === b.mac && a.mac !== NO_MAC && a.root !== b.root));
