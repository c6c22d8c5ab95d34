/** A small file that is written whole, with the one before beside it; a damaged one is set aside. */
import { copyFileSync, existsSync, readFileSync, renameSync } from 'node:fs';
import { writeWhole } from './disk';

/** Why what is kept is not what the file held: it was damaged; whether the one before stands in, and where it is now. */
export interface Damaged {
  readonly before: boolean;
  readonly aside: string;
}

export class KeptFile<T> {
  private value: T;
  /** Set if the file was found damaged */
  readonly damaged: Damaged | undefined;

  /** `check` gives what a parsed file holds, or undefined if it is damaged; `first` what a new one begins with. */
  constructor(
    private readonly path: string,
    private readonly check: (found: unknown) => T | undefined,
    first: () => T,
  ) {
    const there = existsSync(path);
    const found = there ? this.load(path) : undefined;
    if (found !== undefined) {
      this.value = found;
      return;
    }
    const before = this.load(this.before);
    this.value = before ?? first();
    if (there) {
      const aside = `${path}.damaged-${Date.now()}`;
      renameSync(path, aside);
      this.damaged = { before: before !== undefined, aside };
    }
    this.write();
  }

  private get before(): string {
    return `${this.path}.before`;
  }

  private load(path: string): T | undefined {
    try {
      return this.check(JSON.parse(readFileSync(path, 'utf8')));
    } catch {
      return undefined;
    }
  }

  private write(): void {
    if (existsSync(this.path)) copyFileSync(this.path, this.before);
    writeWhole(this.path, `${JSON.stringify(this.value, null, 2)}\n`);
  }

  read(): T {
    return this.value;
  }

  keep(value: T): void {
    this.value = value;
    this.write();
  }
}
