/** How the engine itself does: what went wrong lately, and how much passes through it. */
import type { Settings } from '@taxiarch/core/whole/contract';
import type { Using } from '../bridge/interfaces';

/** Trouble that did not come again in this time is over. */
const TROUBLE_MS = 5000;

export class Trouble {
  private text = '';
  private at = -Infinity;

  note(text: string, now: number): void {
    this.text = text;
    this.at = now;
  }

  /** A sentence that says what keeps the engine from listening; empty if nothing does. */
  says({ sacn, artnet }: Using, settings: Pick<Settings, 'interface' | 'artnetInterface'>, now: number): string {
    const chosen = !sacn ? settings.interface : !artnet ? settings.artnetInterface : undefined;
    if (chosen === 'auto' || chosen === 'plan') return 'This computer has no network interface with an IPv4 address.';
    if (chosen !== undefined)
      return `The interface with address ${chosen === 'same' ? settings.interface : chosen} is gone. Taxiarch goes on when it returns.`;
    return now - this.at < TROUBLE_MS ? this.text : '';
  }
}

/** A rate is not taken anew more often than this. */
const SHORTEST_MS = 200;

/** Packets a second since the last time that was asked, in and out. */
export class Rates {
  private last = { heard: 0, sent: 0 };

  constructor(private since = { at: 0, heard: 0, sent: 0 }) {}

  of(now: number, heard: number, sent: number): { heard: number; sent: number } {
    const passed = now - this.since.at;
    if (passed < SHORTEST_MS) return this.last;
    this.last = {
      heard: Math.round(((heard - this.since.heard) * 1000) / passed),
      sent: Math.round(((sent - this.since.sent) * 1000) / passed),
    };
    this.since = { at: now, heard, sent };
    return this.last;
  }
}
