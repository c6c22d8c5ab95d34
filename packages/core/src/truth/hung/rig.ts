/**
 * All lamps as they hang, by the cables that they are on: who answers on a line, who finds whom, what is lit. Sockets
 * and pages are the stand-ins' matter; tests and forecasts run the same rig without them.
 */
import { allOf, BROADCAST, type RdmPacket, type Uid } from '../../protocol/rdm';
import { HungLamp, type Plug, type Shown } from './lamp';

export interface LineFaults {
  /** Behind so many lamps the cable is cut: the rest are dark and deaf; null is whole. */
  readonly cut: number | null;
  /** Part of the answers that are lost, 0–1: as without a terminator, or with a bad cable */
  readonly ragged: number;
}
const SOUND: LineFaults = { cut: null, ragged: 0 };

/** What comes back on a line: an answer, answers that spoil each other, or nothing. */
export type Heard =
  { readonly kind: 'answer'; readonly packet: RdmPacket } | { readonly kind: 'spoiled' } | { readonly kind: 'silence' };

const keyOf = ({ box, port }: Plug): string => `${box} ${port}`;

export class HungRig {
  private readonly faults = new Map<string, { readonly plug: Plug; readonly faults: LineFaults }>();
  private chains: Map<string, HungLamp[]> | undefined;
  /** Something that outlives a power cut was set: it is time to write it down. */
  onSet: () => void = () => undefined;

  constructor(
    readonly lamps: readonly HungLamp[],
    /** Decides which answers a ragged cable loses, 0–1 */
    private readonly chance: () => number,
  ) {}

  lamp(tag: string): HungLamp {
    const found = this.lamps.find((one) => one.hung.tag === tag);
    if (!found) throw new Error(`No lamp “${tag}” hangs here.`);
    return found;
  }

  /** Cables were moved: chains are made anew when they are next asked for. */
  moved(): void {
    this.chains = undefined;
  }

  err(plug: Plug, change: Partial<LineFaults>): void {
    this.faults.set(keyOf(plug), { plug, faults: { ...this.faultsAt(plug), ...change } });
  }

  faultsAt(plug: Plug): LineFaults {
    return this.faults.get(keyOf(plug))?.faults ?? SOUND;
  }

  /** Cables that are not sound. */
  wrongLines(): (Plug & LineFaults)[] {
    return [...this.faults.values()].flatMap(({ plug: { box, port }, faults }) =>
      faults.cut !== null || faults.ragged > 0 ? [{ box, port, ...faults }] : [],
    );
  }

  reset(): void {
    this.faults.clear();
    this.lamps.forEach((one) => one.reset());
    this.moved();
  }

  private chain(plug: Plug): readonly HungLamp[] {
    if (!this.chains) {
      this.chains = new Map();
      for (const lamp of this.lamps) {
        if (!lamp.plug) continue;
        const key = keyOf(lamp.plug);
        const there = this.chains.get(key) ?? [];
        there.push(lamp);
        this.chains.set(key, there);
      }
      for (const there of this.chains.values()) there.sort((a, b) => a.order - b.order);
    }
    return this.chains.get(keyOf(plug)) ?? [];
  }

  /** Lamps that a port's signal comes to, in the order of the cable. */
  reached(plug: Plug): readonly HungLamp[] {
    const { cut } = this.faultsAt(plug);
    const there = this.chain(plug).filter(({ faults }) => !faults.missing);
    return cut === null ? there : there.slice(0, cut);
  }

  private answering(plug: Plug): HungLamp[] {
    return this.reached(plug).filter(({ answers, faults }) => answers && !faults.deaf);
  }

  /** Whom discovery finds: each UID once, in the order in which a search through all numbers meets them (ANSI E1.20, 7). */
  discover(plug: Plug): Uid[] {
    return [...new Set(this.answering(plug).map(({ uid }) => uid))].sort();
  }

  /** Puts a request on a line. */
  ask(plug: Plug, request: RdmPacket, now: number): Heard {
    const answers = this.answering(plug).flatMap((lamp) => lamp.responder.handle(request, now) ?? []);
    if (request.commandClass === 0x30) this.onSet();
    const [packet] = answers;
    if (!packet || request.destination === BROADCAST || request.destination === allOf(0xffff))
      return { kind: 'silence' };
    if (answers.length > 1) return { kind: 'spoiled' };
    // A sound cable leaves nothing to chance.
    const { ragged } = this.faultsAt(plug);
    return ragged > 0 && this.chance() < ragged ? { kind: 'spoiled' } : { kind: 'answer', packet };
  }

  /** What every lamp shows, in their order; `output` gives what leaves a port now, undefined for no signal. */
  shows(output: (plug: Plug) => Uint8Array | undefined, now: number): Shown[] {
    const lit = new Map<HungLamp, Uint8Array | undefined>();
    const plugs = new Map(this.lamps.flatMap(({ plug }) => (plug ? [[keyOf(plug), plug] as const] : [])));
    for (const plug of plugs.values()) {
      const levels = output(plug);
      for (const lamp of this.reached(plug)) lit.set(lamp, levels);
    }
    return this.lamps.map((lamp) => lamp.shows(lit.get(lamp), now));
  }
}
