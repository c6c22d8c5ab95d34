/** Test pictures as they run: what each holds is held like anything that is taken, and given back like it. */
import { levelAt, type PictureReport, type Track } from '@taxiarch/core/rig/picture';
import { holderOf } from '../../bridge/holder';
import type { PictureOrder, TakeOrder } from '../../bridge/engineMessages';
import type { Output } from './output';

/** What a picture does in one universe. */
interface Part {
  readonly key: number;
  readonly tracks: readonly Track[];
  readonly slots: Uint16Array;
  readonly levels: Uint8Array;
}

interface Running {
  readonly order: Omit<PictureOrder, 'program'>;
  readonly parts: readonly Part[];
  readonly steps: number;
  /** It moves between steps as well. */
  readonly smooth: boolean;
  readonly since: number;
  speed: number;
  level: number;
  /** Where it is */
  step: number;
  at: number;
  /** The step and level that were painted last, if it does not move between steps */
  painted: string;
}

const nameOf = (client: string, id: string): string => `${client} ${id}`;

export class Pictures {
  private readonly running = new Map<string, Running>();

  constructor(
    private readonly output: Pick<Output, 'take' | 'paint' | 'giveBack'>,
    private readonly chance: () => number = Math.random,
  ) {}

  /** Begins a picture in the place of the client’s one of the same name; a sentence if it cannot be. */
  show({ program, ...order }: PictureOrder, now: number, unixTime: number): string | undefined {
    const { client, id, by, shows, speed, level } = order;
    const byKey = new Map<number, Track[]>();
    for (const track of program.tracks) byKey.set(track.key, [...(byKey.get(track.key) ?? []), track]);
    const parts = [...byKey].map(([key, tracks]): Part => ({
      key,
      tracks,
      slots: Uint16Array.from(tracks, ({ slot }) => slot),
      levels: new Uint8Array(tracks.length),
    }));
    const smooth = program.tracks.some(({ how }) => how.kind === 'wave' || how.kind === 'random');
    const { steps } = program;
    const next: Running = { order, parts, steps, smooth, since: unixTime, speed, level, step: 0, at: now, painted: '' };
    this.work(next);
    const show = new Map(shows);
    const take: TakeOrder = {
      client,
      by,
      stay: false,
      universes: parts.map(({ key, slots, levels }) => ({
        key,
        show: show.get(key) ?? 0,
        levels: [...slots].map((slot, i) => [slot, levels[i]!] as const),
      })),
    };
    const refused = this.output.take(take, unixTime);
    if (refused !== undefined) return refused;
    const before = this.running.get(nameOf(client, id));
    this.running.set(nameOf(client, id), next);
    this.paint(next);
    // What the one before held besides is given back once this one is there.
    if (before) this.giveBack(before, this.slotsOf(client));
    return undefined;
  }

  /** Wire keys and slots that a client’s pictures hold */
  private slotsOf(client: string): ReadonlySet<number> {
    const held = new Set<number>();
    for (const { order, parts } of this.running.values())
      if (order.client === client)
        for (const { key, slots } of parts) for (const slot of slots) held.add(key * 512 + slot);
    return held;
  }

  private giveBack({ order, parts }: Running, stays: ReadonlySet<number>): void {
    const gone = new Set(parts.flatMap(({ key, slots }) => [...slots].map((slot) => key * 512 + slot)));
    this.output.giveBack(
      (hold, key, slot) => hold.client === order.client && gone.has(key * 512 + slot) && !stays.has(key * 512 + slot),
    );
  }

  tune({ client, id, speed, level }: { client: string; id: string; speed: number; level: number }): string | undefined {
    const found = this.running.get(nameOf(client, id));
    if (!found) return 'This picture is not shown any more.';
    found.speed = speed;
    found.level = level;
    return undefined;
  }

  end(client: string, id: string): string | undefined {
    const found = this.running.get(nameOf(client, id));
    if (!found) return 'This picture is not shown any more.';
    this.running.delete(nameOf(client, id));
    this.giveBack(found, this.slotsOf(client));
    return undefined;
  }

  private work(picture: Running): void {
    const { parts, step, level } = picture;
    for (const { tracks, levels } of parts)
      for (let i = 0; i < tracks.length; i += 1) levels[i] = levelAt(tracks[i]!, step, level, this.chance);
  }

  /** Hands its levels to the output; false once nothing of it is held any more. */
  private paint({ order, parts }: Running): boolean {
    let held = 0;
    for (const { key, slots, levels } of parts) held += this.output.paint(order.client, key, slots, levels);
    return held > 0;
  }

  /** Moves all of them on; `now` is the engine’s clock, ms. */
  tick(now: number): void {
    for (const [name, picture] of this.running) {
      picture.step += ((now - picture.at) / 1000) * picture.speed;
      picture.at = now;
      const mark = `${Math.floor(picture.step)} ${picture.level}`;
      if (picture.smooth || mark !== picture.painted) this.work(picture);
      picture.painted = mark;
      // Given back by whatever way, it is over.
      if (!this.paint(picture)) this.running.delete(name);
    }
  }

  report(): PictureReport[] {
    for (const [name, picture] of this.running) if (!this.paint(picture)) this.running.delete(name);
    return [...this.running.values()].map(({ order, parts, steps, since, speed, level, step }) => ({
      id: order.id,
      holder: holderOf(order.client),
      by: order.by,
      says: order.says,
      universes: parts.length,
      step: Math.floor(step) % steps,
      steps,
      speed,
      level,
      since,
    }));
  }
}
