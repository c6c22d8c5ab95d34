/** The bench on which all stand-ins stand: what each shows, and hands that unplug, switch and turn. */
import type { StandIn, VisualiserFaults } from '@taxiarch/core/whole/contract';
import type { AdapterBox } from './adapter/adapterBox';
import type { NodeBox, Turned } from './node';
import { NO_MISTAKES, type SenderMistakes } from './mistakes';
import { openPanel } from './panel';
import { RIGHT } from './visualiser/faults';
import type { RigBox, RigHand } from './rig/rigBox';
import type { Cable } from './wire';

/** A sender as the bench needs it. */
export interface BenchSender {
  report(): StandIn;
  /** Makes these mistakes from now on. */
  err(mistakes: Partial<SenderMistakes>): Promise<void>;
  go(cue?: string): void;
  run(on: boolean): void;
  setFader(index: number, level: number): void;
  /** Sends time code, or not. */
  timeCode(on: boolean): void;
  /** What it plays, by show universe, whatever becomes of it on its way. */
  playing(): Readonly<Record<number, readonly number[]>>;
  /** Holds the rig again that it was shipped with. */
  reset(): void;
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
  /** For a sender: it sends time code */
  readonly timeCode?: boolean;
  readonly turn?: Turned;
  /** For a sender: what is wrong with it on purpose */
  readonly mistakes?: Partial<SenderMistakes>;
  /** For a node: what does not get through to it, and who is not heard there */
  readonly deaf?: Partial<Cable['deaf']>;
  /** For a node: the firmware that it says it runs */
  readonly firmware?: readonly [number, number];
  /** For the rig: what is done to lamps and cables */
  readonly rig?: RigHand;
  /** Everything on the bench is again as it was shipped. */
  readonly reset?: boolean;
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
  rig: RigBox,
  adapters: ReadonlyMap<string, AdapterBox>,
) => {
  const all = async () => {
    const boxes = [...senders.values(), ...nodes.values(), ...adapters.values(), rig].map((one) => one.report());
    const other = await askVisualiser(visualiser, 'box');
    return other ? [...boxes, other] : boxes;
  };
  return openPanel(address, port, {
    boxes: all,
    /** At one moment: by id of a node, what leaves its ports and whose it is; by address of a sender, what it plays */
    leaving: () => ({
      ports: Object.fromEntries([...nodes].map(([id, node]) => [id, node.leaving()])),
      playing: Object.fromEntries([...senders.values()].map((one) => [one.report().address, one.playing()])),
    }),
    handle: async (given) => {
      const { id, faults, reset, mistakes, deaf, firmware, power, plugged, loses, delays, cue, master, fader, turn } =
        given as unknown as Handled;
      const { rig: hand, timeCode } = given as unknown as Handled;
      if (reset) {
        const isMeant = (one: string) => id === 'all' || id === one;
        for (const [name, one] of senders) {
          if (!isMeant(name)) continue;
          await one.err(NO_MISTAKES);
          one.timeCode(false);
          one.reset();
          one.run(!one.report().stranger);
        }
        for (const [name, one] of nodes) if (isMeant(name)) await one.reset();
        for (const [name, one] of adapters) if (isMeant(name)) await one.reset();
        if (isMeant('rig')) rig.reset();
        if (isMeant('crow')) {
          await askVisualiser(visualiser, 'reset', {});
          await askVisualiser(visualiser, 'set', RIGHT);
          await askVisualiser(visualiser, 'power', { on: true });
        }
        return all();
      }
      if (id === 'rig') {
        if (hand) rig.hand(hand);
        return all();
      }
      if (id === 'crow') {
        if (power !== undefined) await askVisualiser(visualiser, 'power', { on: power });
        if (faults) await askVisualiser(visualiser, 'set', faults);
        return all();
      }
      const adapter = adapters.get(id);
      if (adapter) {
        await adapter.handle({ ...(plugged !== undefined && { plugged }), ...(fader && { fader }) });
        return all();
      }
      const node = nodes.get(id);
      const sender = senders.get(id);
      if (!node && !sender) throw new Error(`There is no stand-in “${id}”.`);
      if (sender) {
        if (mistakes !== undefined) await sender.err(mistakes);
        if (power !== undefined) sender.run(power);
        if (timeCode !== undefined) sender.timeCode(timeCode);
        if (cue !== undefined) sender.go(cue === '' ? undefined : cue);
        if (master !== undefined) sender.setMaster(between('The master', master, 100));
        if (fader !== undefined) sender.setFader(...fader);
      }
      if (node) {
        if (loses !== undefined) node.trouble({ loses: between('Loss', loses, 1) });
        if (delays !== undefined) node.trouble({ delays: between('Delay', delays, 5000) });
        if (plugged !== undefined) node.trouble({ plugged });
        if (deaf !== undefined) node.deafen(deaf);
        if (firmware !== undefined) node.run(firmware);
        if (turn !== undefined) node.turn(turn);
        if (power !== undefined) await node.power(power);
      }
      return all();
    },
  });
};
