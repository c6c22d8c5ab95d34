/** A serial port over TCP: the Telnet com port control option (RFC 2217, over RFC 854 and RFC 856). */
import { joinBytes } from '../../base/bytes';

const IAC = 255;
const DONT = 254;
const DO = 253;
const WONT = 252;
const WILL = 251;
const SB = 250;
const SE = 240;
const BINARY = 0;
export const COM_PORT_OPTION = 44;
/** What the server says of a command is the command's number and this. */
const SERVER = 100;

export const SET_BAUDRATE = 1;
export const SET_DATASIZE = 2;
export const SET_PARITY = 3;
export const SET_STOPSIZE = 4;
export const SET_CONTROL = 5;
export const NOTIFY_LINESTATE = 6;
export const SET_LINESTATE_MASK = 10;

/** Values of SET-CONTROL */
const NO_FLOW_CONTROL = 1;
const NO_FLOW_CONTROL_IN = 14;
const DTR_ON = 8;
const RTS_ON = 11;
const RTS_OFF = 12;
const BREAK_ON = 5;
const BREAK_OFF = 6;
/** Bits of a line state */
export const LINE_BREAK = 0x10;

/** DMX512 on a line: 250 kbaud, 8 bits, no parity, two stop bits (ANSI E1.11-2008, 8). */
export const BAUD = 250_000;

export type ComPortEvent =
  | { readonly kind: 'data'; readonly bytes: Uint8Array }
  /** A command or its answer, as the other end says it; `server` where it comes from the port */
  | { readonly kind: 'command'; readonly code: number; readonly server: boolean; readonly value: Uint8Array }
  /** DO, DONT, WILL or WONT an option */
  | { readonly kind: 'asks'; readonly verb: 'do' | 'dont' | 'will' | 'wont'; readonly option: number };

const VERBS = { do: DO, dont: DONT, will: WILL, wont: WONT } as const;
const VERB_OF = new Map(Object.entries(VERBS).map(([verb, code]) => [code as number, verb as keyof typeof VERBS]));

const escaped = (bytes: Iterable<number>): number[] => {
  const out: number[] = [];
  for (const byte of bytes) {
    out.push(byte);
    if (byte === IAC) out.push(IAC);
  }
  return out;
};

export const encodeCommand = (code: number, value: readonly number[], server = false): Uint8Array =>
  Uint8Array.from([IAC, SB, COM_PORT_OPTION, code + (server ? SERVER : 0), ...escaped(value), IAC, SE]);

export const encodeAsk = (verb: keyof typeof VERBS, option: number): Uint8Array =>
  Uint8Array.from([IAC, VERBS[verb], option]);

/**
 * What makes a port a DMX line, and has it tell of breaks: sent by the client when it connects. No byte is taken for flow
 * control, for 0x11 and 0x13 are levels; RTS low has a plain adapter's driver send, high has it listen.
 */
export function encodeOpening(input: boolean): Uint8Array {
  const baud = [24, 16, 8, 0].map((shift) => (BAUD >> shift) & 0xff);
  return joinBytes([
    encodeAsk('will', COM_PORT_OPTION),
    encodeAsk('do', BINARY),
    encodeAsk('will', BINARY),
    encodeCommand(SET_BAUDRATE, baud),
    encodeCommand(SET_DATASIZE, [8]),
    encodeCommand(SET_PARITY, [1]),
    encodeCommand(SET_STOPSIZE, [2]),
    ...[NO_FLOW_CONTROL, NO_FLOW_CONTROL_IN, DTR_ON, input ? RTS_ON : RTS_OFF].map((value) =>
      encodeCommand(SET_CONTROL, [value]),
    ),
    encodeCommand(SET_LINESTATE_MASK, [LINE_BREAK]),
  ]);
}

/** A frame: break, mark, start code 0, slots. The break lasts until the port has carried out both commands. */
export const encodeFrame = (slots: Uint8Array): Uint8Array =>
  joinBytes([
    encodeCommand(SET_CONTROL, [BREAK_ON]),
    encodeCommand(SET_CONTROL, [BREAK_OFF]),
    Uint8Array.from(escaped([0, ...slots])),
  ]);

/** What a port tells of the line: a break, then what came after it. */
export const encodeHeardFrame = (slots: Uint8Array): Uint8Array =>
  joinBytes([encodeCommand(NOTIFY_LINESTATE, [LINE_BREAK], true), Uint8Array.from(escaped([0, ...slots]))]);

export const isBreak = (event: ComPortEvent): 'on' | 'off' | undefined => {
  if (event.kind !== 'command' || event.server || event.code !== SET_CONTROL) return undefined;
  return event.value[0] === BREAK_ON ? 'on' : event.value[0] === BREAK_OFF ? 'off' : undefined;
};

export const isHeardBreak = (event: ComPortEvent): boolean =>
  event.kind === 'command' &&
  event.server &&
  event.code === NOTIFY_LINESTATE &&
  ((event.value[0] ?? 0) & LINE_BREAK) !== 0;

/** Longest command that is kept; a longer one is let go. */
const MOST_COMMAND = 64;

/** Reads the bytes of a connection, in whatever portions they come. Never refuses: what makes no sense is passed over. */
export class ComPortReader {
  private state: 'data' | 'iac' | 'verb' | 'command' | 'commandIac' = 'data';
  private verb: keyof typeof VERBS = 'do';
  private command: number[] = [];

  push(bytes: Uint8Array): ComPortEvent[] {
    const events: ComPortEvent[] = [];
    let data: number[] = [];
    const flush = () => {
      if (data.length > 0) events.push({ kind: 'data', bytes: Uint8Array.from(data) });
      data = [];
    };
    for (const byte of bytes) {
      switch (this.state) {
        case 'data':
          if (byte === IAC) this.state = 'iac';
          else data.push(byte);
          break;
        case 'iac': {
          const verb = VERB_OF.get(byte);
          this.state = 'data';
          if (byte === IAC) data.push(IAC);
          else if (byte === SB) {
            this.command = [];
            this.state = 'command';
          } else if (verb) {
            this.verb = verb;
            this.state = 'verb';
          }
          break;
        }
        case 'verb':
          flush();
          events.push({ kind: 'asks', verb: this.verb, option: byte });
          this.state = 'data';
          break;
        case 'command':
          if (byte === IAC) this.state = 'commandIac';
          else if (this.command.length < MOST_COMMAND) this.command.push(byte);
          break;
        case 'commandIac':
          if (byte === IAC) {
            this.command.push(IAC);
            this.state = 'command';
            break;
          }
          this.state = 'data';
          if (byte === SE && this.command[0] === COM_PORT_OPTION && this.command[1] !== undefined) {
            flush();
            const code = this.command[1];
            const server = code >= SERVER;
            events.push({
              kind: 'command',
              code: server ? code - SERVER : code,
              server,
              value: Uint8Array.from(this.command.slice(2)),
            });
          }
      }
    }
    flush();
    return events;
  }
}
