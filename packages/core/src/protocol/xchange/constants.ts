/** Numbers of MVR-xchange (DIN SPEC 15801, MVR 1.6), and the bounds that we set. */

/** mDNS name under which stations are found. */
export const SERVICE = '_mvrxchange._tcp.local';
export const DEFAULT_GROUP = 'Default';

export const MVR_PACKAGE_HEADER = 778_682;
export const MVR_PACKAGE_VERSION = 1;
export const PACKAGE_HEADER_LENGTH = 28;
export const TYPE_JSON = 0;
export const TYPE_MVR = 1;

/** Version of MVR that we speak. */
export const VERSION = { verMajor: 1, verMinor: 6 } as const;

/** Longest JSON message, bytes. */
export const MOST_JSON = 1024 * 1024;
/** Largest file that is taken from a station, bytes. */
export const MOST_FILE = 256 * 1024 * 1024;
/** Most pieces of one file. */
export const MOST_PACKAGES = 65_536;
/** Most files of one station that are kept in mind; older ones are forgotten. */
export const MOST_COMMITS = 100;
/** Most stations that are kept in mind. */
export const MOST_STATIONS = 100;
/** Longest name, in characters. */
export const LONGEST_NAME = 120;
export const LONGEST_COMMENT = 2000;
