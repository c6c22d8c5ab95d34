/** Numbers of ANSI E1.20-2010 and ANSI E1.37-1, by the standards' own names. */

export const SC_RDM = 0xcc;
export const SC_SUB_MESSAGE = 0x01;

export const DISCOVERY_COMMAND = 0x10;
export const DISCOVERY_COMMAND_RESPONSE = 0x11;
export const GET_COMMAND = 0x20;
export const GET_COMMAND_RESPONSE = 0x21;
export const SET_COMMAND = 0x30;
export const SET_COMMAND_RESPONSE = 0x31;

export const RESPONSE_TYPE_ACK = 0x00;
export const RESPONSE_TYPE_ACK_TIMER = 0x01;
export const RESPONSE_TYPE_NACK_REASON = 0x02;
export const RESPONSE_TYPE_ACK_OVERFLOW = 0x03;

export const STATUS_MESSAGES = 0x0030;
export const DEVICE_INFO = 0x0060;

/** A responder without slots of its own (ANSI E1.20, 10.6.3) */
export const NO_START_ADDRESS = 0xffff;
/** Most bytes of parameter data in one packet */
export const MOST_DATA = 231;
/** Most characters of a label (ANSI E1.20, 10.5) */
export const MOST_LABEL = 32;
