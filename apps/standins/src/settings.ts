/** What a node is set to: at its front panel, or by Address and IpProg. It outlives a power cut. */
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { joinPortAddress, type Protocol, splitPortAddress } from '@taxiarch/core/base/address';
import type { PortRules } from '@taxiarch/core/network/port';
import type { LossOfSignal, Model, PortMerge, PortUse, StartUp } from '@taxiarch/core/show/records';

export interface PortSettings {
  use: PortUse;
  /** An input that was switched off by ArtInput */
  disabled: boolean;
  protocol: Protocol;
  /** Low four bits of the Port-Address; net and sub-net are its page's. */
  low: number;
  merge: PortMerge;
  rdm: boolean;
  loss: LossOfSignal;
  start: StartUp;
  fixed: number;
  /** Look that was stored, for loss of signal and start-up */
  look: readonly number[];
}

export interface BoxSettings {
  shortName: string;
  longName: string;
  address: string;
  mask: string;
  gateway: string;
  dhcp: boolean;
  indicators: 'normal' | 'mute' | 'locate';
  /** sACN priority of what its inputs send */
  priority: number;
  pages: { net: number; sub: number }[];
  ports: PortSettings[];
}

/** A front panel as it is found on the bench. */
export interface BoxSetup {
  readonly id: string;
  readonly model: Model;
  readonly mac: readonly number[];
  readonly shortName: string;
  readonly longName: string;
  readonly address: string;
  /** Firmware as two numbers */
  readonly firmware: readonly [number, number];
  /** What each port carries; `wire` is a Port-Address or an sACN universe. */
  readonly ports: readonly (Partial<PortSettings> & { readonly wire: number })[];
  /** Stays off until somebody switches it on. */
  readonly off?: boolean;
}

const pageOf = (model: Model, port: number): number => Math.floor(port / model.perPage);

export function settingsOf(setup: BoxSetup): BoxSettings {
  const { model } = setup;
  const ports = setup.ports.map(({ wire, ...port }): PortSettings => ({
    use: 'out',
    disabled: false,
    protocol: 'sacn',
    low: splitPortAddress(wire).universe,
    merge: model.merges[0] ?? 'none',
    rdm: model.rdm && (port.use ?? 'out') === 'out',
    loss: { kind: 'hold', after: 0, over: 0 },
    start: 'wait',
    fixed: 255,
    look: [],
    ...port,
  }));
  const pages = Array.from({ length: Math.max(1, Math.ceil(ports.length / model.perPage)) }, (_, page) => {
    const { net, sub } = splitPortAddress(setup.ports[page * model.perPage]?.wire ?? 0);
    return { net, sub };
  });
  return {
    shortName: setup.shortName,
    longName: setup.longName,
    address: setup.address,
    mask: '255.0.0.0',
    gateway: '0.0.0.0',
    dhcp: false,
    indicators: 'normal',
    priority: 100,
    pages,
    ports,
  };
}

/** The whole number by which a port finds its universe, in either protocol. */
export function wireOf(settings: BoxSettings, model: Model, port: number): number {
  const { net, sub } = settings.pages[pageOf(model, port)]!;
  return joinPortAddress({ net, sub, universe: settings.ports[port]!.low });
}

/** A port's settings as the port model wants them. */
export const rulesOf = (settings: BoxSettings, model: Model, port: number): PortRules => ({
  ...settings.ports[port]!,
  wire: wireOf(settings, model, port),
});

/** Turns a port to a wire number at the front panel; the whole page goes along to its net and sub-net. */
export function turnTo(settings: BoxSettings, model: Model, port: number, wire: number): void {
  const { net, sub, universe } = splitPortAddress(wire);
  settings.pages[pageOf(model, port)] = { net, sub };
  settings.ports[port]!.low = universe;
}

/** Settings kept in a file; without one they last until the power is cut. */
export class Memory {
  /** What the file holds */
  private kept = '';

  constructor(private readonly path: string | undefined) {}

  load(first: BoxSettings): BoxSettings {
    if (this.path === undefined) return first;
    try {
      const kept = JSON.parse(readFileSync(this.path, 'utf8')) as BoxSettings;
      return kept.ports.length === first.ports.length ? { ...first, ...kept } : first;
    } catch {
      return first;
    }
  }

  keep(settings: BoxSettings): void {
    const text = JSON.stringify(settings);
    if (this.path === undefined || text === this.kept) return;
    mkdirSync(dirname(this.path), { recursive: true });
    writeFileSync(`${this.path}.new`, text);
    renameSync(`${this.path}.new`, this.path);
    this.kept = text;
  }
}
