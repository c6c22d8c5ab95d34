/** DMX through a plug: the line, serial ports over TCP (RFC 2217), frames in and out. */
export {
  ComPortReader,
  encodeAsk,
  encodeCommand,
  encodeFrame,
  encodeHeardFrame,
  encodeOpening,
  isBreak,
  isHeardBreak,
  type ComPortEvent,
} from './comPort';
export * from './frames';
export { Handshake } from './handshake';
export * from './line';
export * from './loss';
export * from './report';
