/** Whether a port over TCP became the DMX line that was asked for: each answer is awaited and checked (RFC 2217, 3). */
import {
  BAUD,
  COM_PORT_OPTION,
  LINE_BREAK,
  SET_BAUDRATE,
  SET_DATASIZE,
  SET_LINESTATE_MASK,
  SET_PARITY,
  SET_STOPSIZE,
  type ComPortEvent,
} from './comPort';

const PARITIES: Readonly<Record<number, string>> = { 1: 'none', 2: 'odd', 3: 'even', 4: 'mark', 5: 'space' };
const STOPS: Readonly<Record<number, string>> = { 1: '1', 2: '2', 3: '1.5' };

interface Wanted {
  /** “the baud rate” */
  readonly what: string;
  readonly value: number;
  readonly text: (value: number) => string;
}

const WANTED = new Map<number, Wanted>([
  [SET_BAUDRATE, { what: 'the baud rate', value: BAUD, text: (value) => `${value.toLocaleString('en')} baud` }],
  [SET_DATASIZE, { what: 'the data size', value: 8, text: (value) => `${value} data bits` }],
  [SET_PARITY, { what: 'the parity', value: 1, text: (value) => `parity ${PARITIES[value] ?? value}` }],
  [SET_STOPSIZE, { what: 'the stop bits', value: 2, text: (value) => `${STOPS[value] ?? value} stop bits` }],
]);

const numberOf = (bytes: Uint8Array): number => bytes.reduce((sum, byte) => sum * 256 + byte, 0);
/** As much of a foreign greeting as is shown */
const LONGEST_GREETING = 40;

export class Handshake {
  /** Why it can be no line; empty while it can */
  refused = '';
  /** It tells of breaks on the line. */
  tellsBreaks = false;
  private agreed = false;
  private readonly open = new Set(WANTED.keys());
  private greeting = '';

  /** Every answer came, and each is as it must be. */
  get done(): boolean {
    return this.refused === '' && this.agreed && this.open.size === 0;
  }

  /** What the other end says, before it is a line. */
  take(event: ComPortEvent): void {
    if (event.kind === 'data') this.greet(event.bytes);
    else if (event.kind === 'asks') this.option(event);
    else if (event.server) this.answer(event.code, numberOf(event.value));
  }

  private greet(bytes: Uint8Array): void {
    if (this.greeting.length < LONGEST_GREETING)
      this.greeting += String.fromCharCode(...bytes.subarray(0, LONGEST_GREETING)).replace(/[^\x20-\x7e]+/g, ' ');
  }

  private option({ verb, option }: Extract<ComPortEvent, { kind: 'asks' }>): void {
    if (option !== COM_PORT_OPTION) return;
    if (verb === 'do' || verb === 'will') this.agreed = true;
    else this.refused = 'It refuses to be set as a serial port (RFC 2217).';
  }

  private answer(code: number, value: number): void {
    // Who answers commands knows the option, whether it says so or not.
    this.agreed = true;
    if (code === SET_LINESTATE_MASK) this.tellsBreaks = (value & LINE_BREAK) !== 0;
    const wanted = WANTED.get(code);
    if (!wanted) return;
    if (value === wanted.value) this.open.delete(code);
    else this.refused ||= `It runs at ${wanted.text(value)}; DMX needs ${wanted.text(wanted.value)}.`;
  }

  /** Why it is no line yet, when the time for it is over. */
  get lacks(): string {
    const said = this.greeting.trim();
    if (!this.agreed && said !== '') return `It is something else: it says “${said.slice(0, LONGEST_GREETING)}”.`;
    if (!this.agreed) return 'It does not answer as a serial port (RFC 2217).';
    const open = [...this.open].map((code) => WANTED.get(code)!.what);
    return `It does not confirm ${open.join(', ')}.`;
  }
}
