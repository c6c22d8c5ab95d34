/** The bench on which all stand-ins stand: what each shows, and hands that unplug, switch and turn. */
import type { StandIn, VisualiserFaults } from '@taxiarch/core/contract';
import type { NodeBox, Turned } from './node';
import { openPanel } from './panel';

/** A sender as the bench needs it. */
export interface BenchSender {
  report(): StandIn;
  go(cue?: string): void;
  run(on: boolean): void;
  setFader(index: number, level: number): void;
  /** 0–100 */
  setMaster(percent: number): void;
}

export interface Handled {
  readonly id: string;
  readonly power?: boolean;
  readonly plugged?: boolean;
  readonly loses?: number;
  readonly delays?: number;
  /** A cue to go to; empty for the next */
  readonly cue?: string;
  readonly master?: number;
  readonly fader?: readonly [index: number, level: number];
  readonly turn?: Turned;
  /** For the visualiser: what is wrong with it on purpose */
  readonly faults?: Partial<VisualiserFaults>;
}

const between = (what: string, value: number, most: number): number => {
  if (!Number.isFinite(value) || value < 0 || value > most) throw new Error(`${what} runs from 0 to ${most}.`);
  return value;
};

const LONGEST_MS = 800;

async function askVisualiser(address: string, path: string, body?: object): Promise<StandIn | undefined> {
  try {
    const response = await fetch(`${address}/${path}`, {
      signal: AbortSignal.timeout(LONGEST_MS),
      ...(body && { method: 'POST', body: JSON.stringify(body) }),
    });
    return (await response.json()) as StandIn;
  } catch {
    return undefined;
  }
}

/** `GET /boxes` tells how all stand; `POST /handle` does something to one. */
export const openBench = (
  address: string,
  port: number,
  nodes: ReadonlyMap<string, NodeBox>,
  senders: ReadonlyMap<string, BenchSender>,
  /** Address of the visualiser's own panel; it is a process of its own and need not be there */
  visualiser: string,
) => {
  const all = async () => {
    const boxes = [...senders.values(), ...nodes.values()].map((one) => one.report());
    const other = await askVisualiser(visualiser, 'box');
    return other ? [...boxes, other] : boxes;
  };
  return openPanel(address, port, {
    boxes: all,
    handle: async (given) => {
      const { id, faults, power, plugged, loses, delays, cue, master, fader, turn } = given as unknown as Handled;
      if (id === 'crow') {
        if (power !== undefined) await askVisualiser(visualiser, 'power', { on: power });
        if (faults) await askVisualiser(visualiser, 'set', faults);
        return all();
      }
      const node = nodes.get(id);
      const sender = senders.get(id);
      if (!node && !sender) throw new Error(`There is no stand-in “${id}”.`);
      if (sender) {
        if (power !== undefined) sender.run(power);
        if (cue !== undefined) sender.go(cue === '' ? undefined : cue);
        if (master !== undefined) sender.setMaster(between('The master', master, 100));
        if (fader !== undefined) sender.setFader(...fader);
      }
      if (node) {
        if (loses !== undefined) node.trouble({ loses: between('Loss', loses, 1) });
        if (delays !== undefined) node.trouble({ delays: between('Delay', delays, 5000) });
        if (plugged !== undefined) node.trouble({ plugged });
        if (turn !== undefined) node.turn(turn);
        if (power !== undefined) await node.power(power);
      }
      return all();
    },
  });
};
