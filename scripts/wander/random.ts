/** Numbers that are the same for the same seed (mulberry32). */
export class Random {
  constructor(private state: number) {}

  /** 0 up to, not including, 1 */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  pick<T>(from: readonly T[]): T {
    return from[Math.floor(this.next() * from.length)]!;
  }

  /** One of the names, each as often as its weight says. */
  weighted<T extends string>(weights: Readonly<Record<T, number>>): T {
    const all = Object.entries(weights) as [T, number][];
    let left = this.next() * all.reduce((sum, [, weight]) => sum + weight, 0);
    for (const [name, weight] of all) if ((left -= weight) < 0) return name;
    return all[0]![0];
  }
}
