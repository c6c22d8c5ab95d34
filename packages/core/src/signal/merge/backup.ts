/** Which of several sources is let through where one stands in for the other. */

export type Returning = 'at once' | 'by hand';

/**
 * Sources in the order in which they are wanted. The first that is heard is let through; when it
 * falls silent (the caller says when: after the protocol's loss time) the next one takes over.
 * One that returns takes over again at once, or only when a person gives back.
 */
export class Backup {
  /** Index of the one let through; −1 while none is heard */
  current = -1;

  /** Chooses again; `heard` says of each source whether it is heard now. */
  choose(heard: readonly boolean[], returning: Returning): number {
    const first = heard.indexOf(true);
    if (returning === 'at once' || !heard[this.current]) this.current = first;
    return this.current;
  }

  /** A person gives back to the first that is heard. */
  giveBack(heard: readonly boolean[]): void {
    this.current = heard.indexOf(true);
  }
}
