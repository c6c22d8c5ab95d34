/** Names and numbers of Art-Net 4. */

export const ARTNET_PORT = 0x1936;
/** "Art-Net" and a NUL */
export const ARTNET_ID = Uint8Array.from([0x41, 0x72, 0x74, 0x2d, 0x4e, 0x65, 0x74, 0]);
export const PROTOCOL_VERSION = 14;

export const OpPoll = 0x2000;
export const OpPollReply = 0x2100;
export const OpDmx = 0x5000;
export const OpSync = 0x5200;

export const OEM_UNKNOWN = 0x00ff;

/** Style codes of a PollReply. */
export const StNode = 0x00;
export const StController = 0x01;
export const StMedia = 0x02;
export const StVisual = 0x06;

/** PortTypes bits. */
export const PORT_CAN_OUTPUT = 0x80;
export const PORT_CAN_INPUT = 0x40;

/** GoodInput bits. */
export const INPUT_DATA_RECEIVED = 0x80;
export const INPUT_DISABLED = 0x08;

/** GoodOutputA bits. */
export const OUTPUT_SENDING = 0x80;
export const OUTPUT_MERGING = 0x08;
export const OUTPUT_MERGE_LTP = 0x02;
export const OUTPUT_FROM_SACN = 0x01;

/** GoodOutputB bits. */
export const OUTPUT_RDM_DISABLED = 0x80;
export const OUTPUT_STYLE_CONTINUOUS = 0x40;

/** Status2 bits. */
export const STATUS2_SACN_CAPABLE = 0x10;
export const STATUS2_PORT_ADDRESS_15_BIT = 0x08;
export const STATUS2_DHCP_CAPABLE = 0x04;
export const STATUS2_USES_DHCP = 0x02;

/** A node that falls silent is gone after this many missed polls. */
export const MISSED_POLLS = 3;
export const POLL_INTERVAL_MS = 2800;
/** Sources leave a node's merge after this long (Art-Net 4, "Data merging"). */
export const MERGE_TIMEOUT_MS = 10_000;
