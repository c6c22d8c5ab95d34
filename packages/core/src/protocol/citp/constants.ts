/** Numbers of CITP (header 1.0), and the bounds that we set. */

/** Multicast groups of peer information; the second is what older programs use. */
export const GROUPS = ['239.224.0.180', '224.0.0.180'] as const;
export const PORT = 4809;

export const HEADER_LENGTH = 20;
/** From the header to what a message holds: its layer's own content type. */
export const CONTENT_AT = 24;

/** What a peer may say that it is. */
export const PEER_TYPES = ['LightingConsole', 'MediaServer', 'Visualizer', 'OperationHub', 'Unknown'] as const;

/** Longest message that is read, bytes. */
export const MOST_MESSAGE = 1024 * 1024;
/** Longest name, in characters. */
export const LONGEST_NAME = 120;
/** Most names of frames that are read of one lamp. */
export const MOST_LINES = 512;
/** Fixture numbers are words of 16 bits, universes bytes that count from 0. */
export const LAST_NUMBER = 0xffff;
export const MOST_UNIVERSES = 256;
