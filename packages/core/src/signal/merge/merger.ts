/**
 * A merge that keeps what it came to. HTP of several sources, the usual case, goes through
 * `wide.wat`, which compares sixteen slots at a time; every other case, and a machine whose
 * WebAssembly has no wide words, is {@link mergeSlots} itself. Both always come to the same.
 */
import { SLOTS } from '../../base/address';
import { MOST_CONTENDERS, NOBODY, mergeSlots, type Contender, type MergeMode } from './slots';
import { WIDE_BYTES } from './wideBytes';

/** Where things lie in the memory of `wide.wat`. */
const OWNERS = SLOTS;
const MARKS = 2 * SLOTS;
const SOURCES = MARKS + 256;
const SOURCE = 2 * SLOTS;

interface Wide {
  readonly memory: Uint8Array;
  /** Merges the first so many sources. */
  readonly merge: (sources: number) => void;
  /** Makes one source's priorities for single slots ready. */
  readonly raise: (source: number) => void;
}

/** As much of WebAssembly as is used here; browsers and Node have it alike, and neither's types are the core's. */
interface Assembly {
  validate(bytes: Uint8Array): boolean;
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => {
    readonly exports: Pick<Wide, 'merge' | 'raise'> & { readonly memory: { readonly buffer: ArrayBuffer } };
  };
}

function loadWide(): Wide | undefined {
  const { WebAssembly: assembly } = globalThis as unknown as { readonly WebAssembly?: Assembly };
  if (!assembly?.validate(WIDE_BYTES)) return undefined;
  const { memory, merge, raise } = new assembly.Instance(new assembly.Module(WIDE_BYTES)).exports;
  return { memory: new Uint8Array(memory.buffer), merge, raise };
}

const wide = loadWide();

export class Merger {
  /** 512 levels, valid until the next merge */
  readonly values = new Uint8Array(SLOTS);
  /** The mark of each slot's owner */
  readonly owners = new Uint8Array(SLOTS).fill(NOBODY);

  merge(contenders: readonly Contender[], mode: MergeMode): void {
    const { length } = contenders;
    if (wide && mode === 'htp' && length > 1 && length <= MOST_CONTENDERS) this.mergeWide(contenders, wide);
    else mergeSlots(contenders, mode, this.values, this.owners);
  }

  private mergeWide(contenders: readonly Contender[], { memory, merge, raise }: Wide): void {
    for (let i = 0; i < contenders.length; i += 1) {
      const { mark, priority, values, count, slotPriority } = contenders[i]!;
      const at = SOURCES + i * SOURCE;
      memory[MARKS + i] = mark;
      memory.set(values, at);
      if (slotPriority) {
        memory.set(slotPriority, at + SLOTS);
        raise(i);
      } else memory.fill(priority + 1, at + SLOTS, at + SOURCE);
      if (count < SLOTS) memory.fill(0, at + SLOTS + count, at + SOURCE);
    }
    memory.set(this.owners, OWNERS);
    merge(contenders.length);
    this.values.set(memory.subarray(0, SLOTS));
    this.owners.set(memory.subarray(OWNERS, MARKS));
  }
}
