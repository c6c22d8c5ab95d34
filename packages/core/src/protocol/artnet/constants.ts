/** Names and numbers of Art-Net 4. */

export const ARTNET_PORT = 0x1936;
/** "Art-Net" and a NUL */
export const ARTNET_ID = Uint8Array.from([0x41, 0x72, 0x74, 0x2d, 0x4e, 0x65, 0x74, 0]);
export const PROTOCOL_VERSION = 14;

export const OpPoll = 0x2000;
export const OpPollReply = 0x2100;
export const OpDiagData = 0x2300;
export const OpCommand = 0x2400;
export const OpDmx = 0x5000;
export const OpNzs = 0x5100;
export const OpSync = 0x5200;
export const OpAddress = 0x6000;
export const OpInput = 0x7000;
export const OpTodRequest = 0x8000;
export const OpTodData = 0x8100;
export const OpTodControl = 0x8200;
export const OpRdm = 0x8300;
export const OpRdmSub = 0x8400;
export const OpTimeCode = 0x9700;
export const OpTrigger = 0x9900;
export const OpIpProg = 0xf800;
export const OpIpProgReply = 0xf900;

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
export const INPUT_TO_SACN = 0x01;

/** GoodOutputA bits. */
export const OUTPUT_SENDING = 0x80;
export const OUTPUT_MERGING = 0x08;
export const OUTPUT_MERGE_LTP = 0x02;
export const OUTPUT_FROM_SACN = 0x01;

/** GoodOutputB bits. */
export const OUTPUT_RDM_DISABLED = 0x80;
export const OUTPUT_STYLE_CONTINUOUS = 0x40;

/** Status1: indicators in bits 7–6, who may set the Port-Address in bits 5–4. */
export const STATUS1_INDICATORS = { locate: 0x40, mute: 0x80, normal: 0xc0 } as const;
export const STATUS1_AUTHORITY_PANEL = 0x10;
export const STATUS1_AUTHORITY_NETWORK = 0x20;
export const STATUS1_RDM = 0x02;

/** Status2 bits. */
export const STATUS2_RDM_SWITCH = 0x80;
export const STATUS2_STYLE_SWITCH = 0x40;
export const STATUS2_SQUAWKING = 0x20;
export const STATUS2_SACN_CAPABLE = 0x10;
export const STATUS2_PORT_ADDRESS_15_BIT = 0x08;
export const STATUS2_DHCP_CAPABLE = 0x04;
export const STATUS2_USES_DHCP = 0x02;

/** Status3: what happens when signal is lost in bits 7–6. */
export const STATUS3_FAIL_HOLD = 0x00;
export const STATUS3_FAIL_ZERO = 0x40;
export const STATUS3_FAIL_FULL = 0x80;
export const STATUS3_FAIL_SCENE = 0xc0;
export const STATUS3_FAIL_SUPPORTED = 0x20;
export const STATUS3_DIRECTION_SWITCH = 0x08;

/** Commands of an Address packet; those of a port add its place on the page, 0–3. */
export const AcNone = 0x00;
export const AcCancelMerge = 0x01;
export const AcLedNormal = 0x02;
export const AcLedMute = 0x03;
export const AcLedLocate = 0x04;
export const AcResetRxFlags = 0x05;
export const AcFailHold = 0x08;
export const AcFailZero = 0x09;
export const AcFailFull = 0x0a;
export const AcFailScene = 0x0b;
export const AcFailRecord = 0x0c;
export const AcMergeLtp = 0x10;
export const AcDirectionTx = 0x20;
export const AcDirectionRx = 0x30;
export const AcMergeHtp = 0x50;
export const AcArtNetSel = 0x60;
export const AcAcnSel = 0x70;
export const AcClearOp = 0x90;
export const AcStyleDelta = 0xa0;
export const AcStyleConst = 0xb0;
export const AcRdmEnable = 0xc0;
export const AcRdmDisable = 0xd0;

/** In an Address packet: the byte leaves the device's setting as it is; the bit says that it is meant. */
export const NO_CHANGE = 0x7f;
export const PROGRAM = 0x80;
/** AcnPriority that leaves the device's own */
export const NO_PRIORITY_CHANGE = 255;

/** Command bits of IpProg. */
export const IPPROG_ENABLE = 0x80;
export const IPPROG_DHCP = 0x40;
export const IPPROG_GATEWAY = 0x10;
export const IPPROG_DEFAULT = 0x08;
export const IPPROG_ADDRESS = 0x04;
export const IPPROG_MASK = 0x02;
/** Status bit of IpProgReply. */
export const IPPROG_STATUS_DHCP = 0x40;

/** A node that falls silent is gone after this many missed polls. */
export const MISSED_POLLS = 3;
export const POLL_INTERVAL_MS = 2800;
/** Sources leave a node's merge after this long (Art-Net 4, "Data merging"). */
export const MERGE_TIMEOUT_MS = 10_000;

/** TodControl: nothing, drop the table and search again, end that search, search in the background or not */
export const AtcNone = 0x00;
export const AtcFlush = 0x01;
export const AtcEnd = 0x02;
export const AtcIncOn = 0x03;
export const AtcIncOff = 0x04;
