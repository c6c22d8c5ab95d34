/** Questions to another thread that are answered by their number. */

interface Waiting {
  resolve(value: unknown): void;
  reject(error: Error): void;
}

export class Asks {
  private readonly waiting = new Map<number, Waiting>();
  private count = 0;

  /** `send` sends the question under the number that its answer will bear. */
  ask<T>(send: (ask: number) => void): Promise<T> {
    this.count += 1;
    const ask = this.count;
    return new Promise<T>((resolve, reject) => {
      this.waiting.set(ask, { resolve: resolve as Waiting['resolve'], reject });
      send(ask);
    });
  }

  /** The answer has come; one that nobody waits for any more is let go. */
  settle(ask: number, value: unknown): void {
    this.waiting.get(ask)?.resolve(value);
    this.waiting.delete(ask);
  }

  /** Whoever would have answered is gone: all that waits is refused. */
  refuse(error: Error): void {
    for (const { reject } of this.waiting.values()) reject(error);
    this.waiting.clear();
  }
}
