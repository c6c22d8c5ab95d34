/** Synchronisation packets of our own: after frames that are to be let out together, one for all of them. */
import { SACN_LAST } from '@taxiarch/core/base/address';
import { encodeArtSync } from '@taxiarch/core/protocol/artnet';
import { encodeSync } from '@taxiarch/core/protocol/sacn';

export interface SyncSender {
  sacn(bytes: Uint8Array, universe: number, by: string): void;
  /** To everybody: a node lets out all that came from this address (Art-Net 4, ArtSync) */
  artnet(bytes: Uint8Array, by: string): void;
}

export class SyncOut {
  private readonly due = new Map<string, { readonly universe: number; readonly by: string }>();
  private readonly sequences = new Map<number, number>();

  constructor(
    private readonly cid: Uint8Array,
    private readonly sender: SyncSender,
  ) {}

  /** A frame left that waits for the sACN synchronisation `universe`, or for ArtSync (0), by an interface. */
  frame(universe: number, by = ''): void {
    if (universe >= 0 && universe <= SACN_LAST) this.due.set(`${universe} ${by}`, { universe, by });
  }

  /** Lets out what has left since the last time (E1.31-2018, 6.3 and 11.1.2). */
  flush(): void {
    if (this.due.size === 0) return;
    for (const { universe, by } of this.due.values()) {
      if (universe === 0) {
        this.sender.artnet(encodeArtSync(), by);
        continue;
      }
      const sequence = ((this.sequences.get(universe) ?? -1) + 1) & 0xff;
      this.sequences.set(universe, sequence);
      this.sender.sacn(encodeSync({ cid: this.cid, sequence, syncAddress: universe }), universe, by);
    }
    this.due.clear();
  }
}
