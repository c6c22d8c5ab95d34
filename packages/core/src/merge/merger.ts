/**
 * A merge that remembers what it merged last, and works only on what has changed since. The common
 * case (equal priorities, none for single slots, HTP) compares four slots at a time; every other
 * case is {@link mergeSlots} itself, so that both always come to the same.
 */
import { SLOTS } from '../address';
import { NOBODY, mergeSlots, type Contender, type MergeMode } from './slots';

const WORDS = SLOTS / 4;

interface Remembered {
  mark: number;
  count: number;
  readonly words: Uint32Array;
  readonly levels: Uint8Array;
}

function blank(): Remembered {
  const levels = new Uint8Array(SLOTS);
  return { mark: NOBODY, count: 0, levels, words: new Uint32Array(levels.buffer) };
}

/** Four slots at a time; made once for each array of levels. Those not at a multiple of four bytes have none. */
const views = new WeakMap<Uint8Array, Uint32Array>();
function wordsOf(values: Uint8Array): Uint32Array | undefined {
  let words = views.get(values);
  if (words) return words;
  if (values.byteOffset % 4 !== 0 || values.length !== SLOTS) return undefined;
  words = new Uint32Array(values.buffer, values.byteOffset, WORDS);
  views.set(values, words);
  return words;
}

export class Merger {
  /** 512 levels, valid until the next merge */
  readonly values = new Uint8Array(SLOTS);
  /** The mark of each slot's owner */
  readonly owners = new Uint8Array(SLOTS).fill(NOBODY);
  private readonly remembered: Remembered[] = [];
  /** Sources of the last merge, if what they came to can be gone on from; else −1 */
  private known = -1;

  merge(contenders: readonly Contender[], mode: MergeMode): void {
    if (mode !== 'htp' || contenders.length < 2 || !areEven(contenders)) {
      this.known = -1;
      mergeSlots(contenders, mode, this.values, this.owners);
    } else if (this.isKnown(contenders)) this.update(contenders);
    else {
      mergeSlots(contenders, mode, this.values, this.owners);
      this.remember(contenders);
    }
  }

  /** The same sources as last time, in the same order, each with as many slots. */
  private isKnown(contenders: readonly Contender[]): boolean {
    if (this.known !== contenders.length) return false;
    for (let i = 0; i < contenders.length; i += 1) {
      const { mark, count } = contenders[i]!;
      const there = this.remembered[i]!;
      if (there.mark !== mark || there.count !== count) return false;
    }
    return true;
  }

  private remember(contenders: readonly Contender[]): void {
    this.known = contenders.length;
    contenders.forEach(({ mark, count, values }, i) => {
      const there = (this.remembered[i] ??= blank());
      there.mark = mark;
      there.count = count;
      there.levels.set(values);
    });
  }

  private update(contenders: readonly Contender[]): void {
    for (let i = 0; i < contenders.length; i += 1) {
      const now = wordsOf(contenders[i]!.values)!;
      const before = this.remembered[i]!.words;
      for (let word = 0; word < WORDS; word += 1) if (now[word] !== before[word]) this.change(i, word, contenders);
    }
  }

  /** Takes in four slots of one source, of which at least one has changed. */
  private change(which: number, word: number, contenders: readonly Contender[]): void {
    const { values, owners } = this;
    const { mark, count, levels } = this.remembered[which]!;
    const next = contenders[which]!.values;
    for (let slot = word * 4; slot < word * 4 + 4; slot += 1) {
      const level = next[slot]!;
      levels[slot] = level;
      if (slot >= count) continue;
      const best = values[slot]!;
      if (level > best) {
        values[slot] = level;
        owners[slot] = mark;
      } else if (owners[slot] === mark && level < best) this.search(slot);
    }
  }

  /** The owner of a slot went down: the highest is looked for anew; at one level it stays the owner. */
  private search(slot: number): void {
    const before = this.owners[slot]!;
    let best = -1;
    let owner = NOBODY;
    for (let i = 0; i < this.known; i += 1) {
      const { mark, count, levels } = this.remembered[i]!;
      const level = slot < count ? levels[slot]! : -1;
      if (level > best || (level === best && mark === before)) {
        best = level;
        owner = mark;
      }
    }
    this.values[slot] = best;
    this.owners[slot] = owner;
  }
}

/** All at one priority, none with priorities for single slots, all with levels that can be read four at a time. */
function areEven(contenders: readonly Contender[]): boolean {
  const { priority } = contenders[0]!;
  for (const one of contenders)
    if (one.priority !== priority || one.slotPriority !== null || !wordsOf(one.values)) return false;
  return true;
}
