/** A digest of a whole show that follows each edit without looking at all records again. */
import { createHash } from 'node:crypto';
import type { Change } from '@taxiarch/core/show/edit';
import { KINDS, type AnyRecord, type Kind, type ShowRecords } from '@taxiarch/core/show/records';

/** The same text for the same record, whatever the order of its parts. */
function canonical(value: unknown): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value);
  if (Array.isArray(value)) return value.length === 0 ? '[]' : `[${value.map(canonical).join(',')}]`;
  let text = '';
  for (const [key, quoted] of inOrder(Object.keys(value))) {
    const one = (value as Record<string, unknown>)[key];
    if (one !== undefined) text += `${text === '' ? '' : ','}${quoted}${canonical(one)}`;
  }
  return `{${text}}`;
}

/** Names of a record's parts as they are put in order, with how each is written; records of a kind have the same. */
const orders = new Map<string, (readonly [key: string, quoted: string])[]>();
const MOST_ORDERS = 1000;

function inOrder(keys: readonly string[]): readonly (readonly [string, string])[] {
  const name = keys.join('\n');
  let order = orders.get(name);
  if (!order) {
    order = [...keys].sort((a, b) => (a < b ? -1 : 1)).map((key) => [key, `${JSON.stringify(key)}:`] as const);
    if (orders.size < MOST_ORDERS) orders.set(name, order);
  }
  return order;
}

/**
 * The sum of all records' hashes, in two words of 32 bits: it does not depend on the order in which they
 * came, and an edit takes its old records out and puts its new ones in.
 */
export class ShowDigest {
  private high = 0;
  private low = 0;

  static of(records: ShowRecords): ShowDigest {
    const digest = new ShowDigest();
    for (const kind of KINDS) for (const record of records[kind]) digest.put(kind, record);
    return digest;
  }

  private add(kind: Kind, record: AnyRecord, sign: 1 | -1): void {
    const hash = createHash('sha1')
      .update(`${kind} ${canonical(record)}`)
      .digest();
    this.high = (this.high + sign * hash.readUInt32BE(0)) >>> 0;
    this.low = (this.low + sign * hash.readUInt32BE(4)) >>> 0;
  }

  private put(kind: Kind, record: AnyRecord): void {
    this.add(kind, record, 1);
  }

  /** The digest once these changes are made; this one stays as it is. */
  after(changes: readonly Change[]): ShowDigest {
    const next = new ShowDigest();
    next.high = this.high;
    next.low = this.low;
    for (const { kind, before, after } of changes) {
      if (before) next.add(kind, before, -1);
      if (after) next.add(kind, after, 1);
    }
    return next;
  }

  /** 16 hexadecimal digits */
  toString(): string {
    return [this.high, this.low].map((word) => word.toString(16).padStart(8, '0')).join('');
  }
}
