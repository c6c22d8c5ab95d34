/** What a person should know of this computer and its data: said until it is over or has been read. */
import type { Notice } from '@taxiarch/core/whole/contract';

/** More than this are not kept; the oldest go first. */
const MOST = 20;

export class Notices {
  private notices: Notice[] = [];
  /** They are others than before. */
  onChange: () => void = () => undefined;

  /** One with the same id takes the place of the one before. */
  say(id: string, sentence: string, mend = '', at = Date.now()): void {
    this.notices = [{ id, at, sentence, mend }, ...this.notices.filter((one) => one.id !== id)].slice(0, MOST);
    this.onChange();
  }

  dismiss(id: string): void {
    if (!this.notices.some((one) => one.id === id)) return;
    this.notices = this.notices.filter((one) => one.id !== id);
    this.onChange();
  }

  /** Newest first. */
  list(): readonly Notice[] {
    return this.notices;
  }
}
