/** Frames out of what a line carries: told apart by breaks, or where nobody tells of those by pauses. */

export interface LineFrame {
  readonly startCode: number;
  readonly slots: Uint8Array;
  /** When its first byte came, ms */
  readonly at: number;
}

const MOST = 513;

export class FrameReader {
  private bytes = new Uint8Array(MOST);
  private length = -1;
  private at = 0;
  private last = -Infinity;
  /** Bytes that came before the first frame began, or beyond 512 slots */
  stray = 0;

  /** With `pause` (ms) silence of that length parts frames as well, and the byte that a break leaves behind is dropped. */
  constructor(private readonly pause = Infinity) {}

  /** The line broke: the frame before is whole. */
  lineBreak(at: number): LineFrame | undefined {
    const whole = this.end();
    this.length = 0;
    this.at = at;
    return whole;
  }

  push(bytes: Uint8Array, at: number): LineFrame | undefined {
    let whole: LineFrame | undefined;
    let from = 0;
    if (this.pause < Infinity && at - this.last >= this.pause) {
      whole = this.lineBreak(at);
      // A break reads as one byte of zeros (POSIX termios, without BRKINT); only then comes the start code.
      if (bytes[0] === 0) from = 1;
    }
    this.last = at;
    for (let i = from; i < bytes.length; i += 1) {
      if (this.length < 0 || this.length >= MOST) this.stray += 1;
      else {
        if (this.length === 0) this.at = at;
        this.bytes[this.length] = bytes[i]!;
        this.length += 1;
      }
    }
    // A full frame need not be waited out.
    return this.length === MOST ? (this.end() ?? whole) : whole;
  }

  private end(): LineFrame | undefined {
    const { length } = this;
    this.length = -1;
    if (length < 2) return undefined;
    return { startCode: this.bytes[0]!, slots: this.bytes.slice(1, length), at: this.at };
  }
}
