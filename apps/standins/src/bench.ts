/** The bench on which all stand-ins stand: what each shows, and hands that unplug, switch and turn. */
import type { StandIn } from '@taxiarch/core/contract';
import type { NodeBox, Turned } from './node';
import { openPanel } from './panel';

/** A desk as the bench needs it. */
export interface BenchDesk {
  report(): StandIn;
  go(cue?: string): void;
  run(on: boolean): void;
}

export interface Handled {
  readonly id: string;
  readonly power?: boolean;
  readonly plugged?: boolean;
  readonly loses?: number;
  readonly delays?: number;
  readonly cue?: string;
  readonly turn?: Turned;
}

const between = (what: string, value: number, most: number): number => {
  if (!Number.isFinite(value) || value < 0 || value > most) throw new Error(`${what} runs from 0 to ${most}.`);
  return value;
};

/** `GET /boxes` tells how all stand; `POST /handle` does something to one. */
export const openBench = (
  address: string,
  port: number,
  nodes: ReadonlyMap<string, NodeBox>,
  desks: ReadonlyMap<string, BenchDesk>,
) => {
  const all = () => [...desks.values(), ...nodes.values()].map((one) => one.report());
  return openPanel(address, port, {
    boxes: all,
    handle: async (given) => {
      const { id, power, plugged, loses, delays, cue, turn } = given as unknown as Handled;
      const node = nodes.get(id);
      const desk = desks.get(id);
      if (!node && !desk) throw new Error(`There is no stand-in “${id}”.`);
      if (desk) {
        if (power !== undefined) desk.run(power);
        if (cue !== undefined) desk.go(cue);
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
