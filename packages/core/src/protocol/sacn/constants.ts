/** Names and numbers of ANSI E1.31-2018 (sACN). */

export const ACN_SDT_MULTICAST_PORT = 5568;
export const E131_E131_UNIVERSE_DISCOVERY_INTERVAL_MS = 10_000;
export const E131_NETWORK_DATA_LOSS_TIMEOUT_MS = 2500;
export const E131_DISCOVERY_UNIVERSE = 64214;

export const PREAMBLE_SIZE = 0x0010;
export const POSTAMBLE_SIZE = 0x0000;
/** "ASC-E1.17" and three NULs (5.3). */
export const ACN_PACKET_IDENTIFIER = Uint8Array.from([0x41, 0x53, 0x43, 0x2d, 0x45, 0x31, 0x2e, 0x31, 0x37, 0, 0, 0]);

export const VECTOR_ROOT_E131_DATA = 0x00000004;
export const VECTOR_ROOT_E131_EXTENDED = 0x00000008;
export const VECTOR_E131_DATA_PACKET = 0x00000002;
export const VECTOR_E131_EXTENDED_SYNCHRONIZATION = 0x00000001;
export const VECTOR_E131_EXTENDED_DISCOVERY = 0x00000002;
export const VECTOR_DMP_SET_PROPERTY = 0x02;
export const VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST = 0x00000001;
export const DMP_ADDRESS_AND_DATA_TYPE = 0xa1;

export const OPTION_PREVIEW_DATA = 0x80;
export const OPTION_STREAM_TERMINATED = 0x40;
export const OPTION_FORCE_SYNCHRONIZATION = 0x20;

export const START_CODE_NULL = 0x00;
/** Per-slot priority, an alternate start code that several makers share. */
export const START_CODE_SLOT_PRIORITY = 0xdd;

export const DEFAULT_PRIORITY = 100;
export const HIGHEST_PRIORITY = 200;

export const CID_LENGTH = 16;
export const SOURCE_NAME_LENGTH = 64;
export const DATA_HEADER_LENGTH = 126;
export const SYNC_LENGTH = 49;
export const DISCOVERY_HEADER_LENGTH = 120;
export const DISCOVERY_PAGE_SIZE = 512;
