/** A rig as a program holds it: its own file, which differs from the show's in a few lamps, until it gets another. */
import { footprintOf } from '@taxiarch/core/rig/fixture';
import type { CitpFixture } from '@taxiarch/core/protocol/citp';
import { citpFixtures } from '@taxiarch/core/files/format';
import { writeMvr } from '@taxiarch/core/files/format/archive';
import type { Lamp, ShowRecords } from '@taxiarch/core/show/records';
import { recordsFromFile } from './fromFiles';

/** Lamps that its own file has otherwise, by their numbers in the show. */
export interface Otherwise {
  /** Has another number: this much more */
  readonly number: readonly [lamp: number, more: number];
  /** Lies this many channels higher */
  readonly address: readonly [lamp: number, channels: number];
  /** Is in the next of its modes that takes no more slots than its own, or the last */
  readonly mode: number;
}

function otherMode(lamp: Lamp, types: ShowRecords['type']): string {
  const modes = types.find(({ id }) => id === lamp.typeId)?.modes ?? [];
  const own = modes.find(({ name }) => name === lamp.mode);
  const others = modes.filter((one) => one !== own);
  return (others.find((one) => own && footprintOf(one) <= footprintOf(own)) ?? others[0] ?? own)?.name ?? lamp.mode;
}

export function withOtherwise(records: ShowRecords, { number, address, mode }: Otherwise): ShowRecords {
  const lamp = records.lamp.map((one) => {
    if (one.number === number[0]) return { ...one, number: one.number + number[1] };
    if (one.number === address[0]) return { ...one, channel: one.channel + address[1] };
    if (one.number === mode) return { ...one, mode: otherMode(one, records.type) };
    return one;
  });
  return { ...records, lamp };
}

/** Where it came from, for its page. */
export interface Origin {
  readonly from: string;
  readonly comment: string;
}

const OWN_FILE: Origin = { from: '', comment: 'its own file, from before the last rehearsal' };

export class HeldRig {
  private file: Uint8Array | undefined;
  private own: ShowRecords;
  origin = OWN_FILE;

  /** `shipped` is its own file; `drawn` what it shows before anything is handed to it. */
  constructor(
    private readonly shipped: ShowRecords,
    private readonly drawn: ShowRecords,
    private readonly changed: (records: ShowRecords) => void = () => undefined,
  ) {
    this.own = shipped;
  }

  /** As it was shipped. */
  reset(): void {
    if (this.origin === OWN_FILE) return;
    this.own = this.shipped;
    this.file = undefined;
    this.origin = OWN_FILE;
    this.changed(this.drawn);
  }

  /** Made when somebody first wants it. */
  bytes(): Uint8Array {
    this.file ??= writeMvr({ ...this.own, run: [], machine: [] }, () => undefined);
    return this.file;
  }

  fixtures(): CitpFixture[] {
    return citpFixtures(this.own);
  }

  lamps(): readonly Lamp[] {
    return this.own.lamp;
  }

  /** Takes a file over as it is; throws with a sentence if it cannot be read. */
  take(bytes: Uint8Array, origin: Origin): void {
    this.own = recordsFromFile(bytes);
    this.file = bytes;
    this.origin = origin;
    this.changed(this.own);
  }

  /** Takes over addresses that came lamp by lamp; others stay. */
  repatch(fixtures: readonly CitpFixture[], from: string): void {
    const by = new Map(fixtures.map((one) => [one.number, one]));
    this.own = {
      ...this.own,
      lamp: this.own.lamp.map((one) => {
        const told = by.get(one.number);
        return told ? { ...one, universe: told.universe + 1, channel: told.channel + 1 } : one;
      }),
    };
    this.file = undefined;
    this.origin = { from, comment: `${fixtures.length} lamps by CITP` };
    this.changed(this.own);
  }
}
