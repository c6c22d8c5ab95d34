/**
 * Multicast groups, joined in the order in which they are needed. Systems allow few memberships a socket (Linux: 20,
 * unless told otherwise), so further sockets hold further groups; what a full system does not allow is told, not tried
 * again for every universe.
 */
import type { MembershipState } from '../bridge/receiverMessages';

/** The part of a UDP socket that holds memberships. */
export interface GroupSocket {
  addMembership(group: string, by: string): void;
  dropMembership(group: string, by: string): void;
  close(): unknown;
}

interface Holder {
  readonly socket: GroupSocket;
  readonly groups: Set<number>;
  /** It takes no more until it has left one. */
  full: boolean;
}

/** Groups joined or left before packets and orders have their turn again. */
const AT_ONCE = 32;

/** `changed` is told whenever as much is joined as can be. */
export class Memberships {
  private readonly holders: Holder[] = [];
  private readonly heldBy = new Map<number, Holder>();
  private wanted: readonly number[] = [];
  private by: string | undefined;
  /** As many as the system allowed on this interface; found out by trying */
  private room = Infinity;
  private settling: Promise<void> | undefined;
  private stale = false;

  constructor(
    private readonly first: GroupSocket,
    private readonly groupOf: (universe: number) => string,
    private readonly open: () => Promise<GroupSocket>,
    private readonly changed: (state: MembershipState) => void,
  ) {
    this.holders.push({ socket: first, groups: new Set(), full: false });
  }

  /** The universes whose groups shall be joined, the most needed first; groups of all others are left. */
  want(universes: readonly number[]): Promise<void> {
    this.wanted = universes;
    return this.settle();
  }

  /** Moves to the interface of this address, or to none: all groups are left and joined anew. */
  async use(by: string | undefined): Promise<void> {
    const { by: before } = this;
    this.by = undefined;
    this.stale = true;
    await this.settling;
    for (const universe of this.holders[0]!.groups) this.leave(this.holders[0]!, universe, before);
    for (const { socket } of this.holders.splice(1)) socket.close();
    this.heldBy.clear();
    this.room = Infinity;
    this.by = by;
    await this.settle();
  }

  close(): void {
    this.by = undefined;
    this.stale = true;
    for (const { socket } of this.holders) if (socket !== this.first) socket.close();
  }

  /** One at a time; what is wanted meanwhile is seen to in the same run. */
  private settle(): Promise<void> {
    this.stale = true;
    this.settling ??= this.run().finally(() => (this.settling = undefined));
    return this.settling;
  }

  private async run(): Promise<void> {
    while (this.stale) {
      this.stale = false;
      await this.pass();
    }
  }

  private async pass(): Promise<void> {
    const { by } = this;
    if (by === undefined) return;
    const wanted = this.wanted.slice(0, this.room);
    const keep = new Set(wanted);
    let done = 0;
    const turn = async (): Promise<boolean> => {
      done += 1;
      if (done % AT_ONCE === 0) await new Promise(setImmediate);
      return this.stale;
    };
    for (const [universe, holder] of this.heldBy) {
      if (keep.has(universe)) continue;
      this.leave(holder, universe, by);
      this.heldBy.delete(universe);
      if (await turn()) return;
    }
    for (const universe of wanted) {
      if (this.heldBy.has(universe)) continue;
      const holder = await this.holderFor(universe, by);
      if (!holder) {
        this.room = this.heldBy.size;
        // What is held and less needed makes way for what is needed more.
        this.stale = true;
        return;
      }
      this.heldBy.set(universe, holder);
      if (await turn()) return;
    }
    this.changed({ wanted: this.wanted.length, joined: this.heldBy.size, full: this.room < this.wanted.length });
  }

  /** The socket that has joined a universe's group now; undefined if the system lets none. */
  private async holderFor(universe: number, by: string): Promise<Holder | undefined> {
    for (const holder of this.holders) if (!holder.full && this.joinOn(holder, universe, by)) return holder;
    try {
      const holder: Holder = { socket: await this.open(), groups: new Set(), full: false };
      if (this.joinOn(holder, universe, by)) {
        this.holders.push(holder);
        return holder;
      }
      holder.socket.close();
    } catch {
      // No further socket can be had: the limit is reached as well.
    }
    return undefined;
  }

  private joinOn(holder: Holder, universe: number, by: string): boolean {
    try {
      holder.socket.addMembership(this.groupOf(universe), by);
    } catch (error) {
      // EADDRINUSE: it holds this one already. Anything else: it holds as many as the system allows, or none at all.
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') {
        holder.full = true;
        return false;
      }
    }
    holder.groups.add(universe);
    return true;
  }

  private leave(holder: Holder, universe: number, by: string | undefined): void {
    holder.groups.delete(universe);
    holder.full = false;
    try {
      if (by !== undefined) holder.socket.dropMembership(this.groupOf(universe), by);
    } catch {
      // Gone with the interface.
    }
  }
}
