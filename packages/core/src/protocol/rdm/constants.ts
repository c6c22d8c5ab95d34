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

/** Parameters (ANSI E1.20, table A-3; ANSI E1.37-1, table A-1) */
export const COMMS_STATUS = 0x0015;
export const QUEUED_MESSAGE = 0x0020;
export const STATUS_MESSAGES = 0x0030;
export const SUPPORTED_PARAMETERS = 0x0050;
export const PARAMETER_DESCRIPTION = 0x0051;
export const DEVICE_INFO = 0x0060;
export const DEVICE_MODEL_DESCRIPTION = 0x0080;
export const MANUFACTURER_LABEL = 0x0081;
export const DEVICE_LABEL = 0x0082;
export const FACTORY_DEFAULTS = 0x0090;
export const LANGUAGE = 0x00b0;
export const SOFTWARE_VERSION_LABEL = 0x00c0;
export const BOOT_SOFTWARE_VERSION_ID = 0x00c1;
export const BOOT_SOFTWARE_VERSION_LABEL = 0x00c2;
export const DMX_PERSONALITY = 0x00e0;
export const DMX_PERSONALITY_DESCRIPTION = 0x00e1;
export const DMX_START_ADDRESS = 0x00f0;
export const SLOT_INFO = 0x0120;
export const SLOT_DESCRIPTION = 0x0121;
export const DEFAULT_SLOT_VALUE = 0x0122;
export const DMX_BLOCK_ADDRESS = 0x0140;
export const DMX_FAIL_MODE = 0x0141;
export const DMX_STARTUP_MODE = 0x0142;
export const SENSOR_DEFINITION = 0x0200;
export const SENSOR_VALUE = 0x0201;
export const DIMMER_INFO = 0x0340;
export const MINIMUM_LEVEL = 0x0341;
export const MAXIMUM_LEVEL = 0x0342;
export const CURVE = 0x0343;
export const CURVE_DESCRIPTION = 0x0344;
export const OUTPUT_RESPONSE_TIME = 0x0345;
export const OUTPUT_RESPONSE_TIME_DESCRIPTION = 0x0346;
export const MODULATION_FREQUENCY = 0x0347;
export const MODULATION_FREQUENCY_DESCRIPTION = 0x0348;
export const DEVICE_HOURS = 0x0400;
export const LAMP_HOURS = 0x0401;
export const LAMP_STRIKES = 0x0402;
export const LAMP_STATE = 0x0403;
export const LAMP_ON_MODE = 0x0404;
export const DEVICE_POWER_CYCLES = 0x0405;
export const BURN_IN = 0x0440;
export const DISPLAY_INVERT = 0x0500;
export const DISPLAY_LEVEL = 0x0501;
export const PAN_INVERT = 0x0600;
export const TILT_INVERT = 0x0601;
export const PAN_TILT_SWAP = 0x0602;
export const REAL_TIME_CLOCK = 0x0603;
export const LOCK_STATE = 0x0641;
export const LOCK_STATE_DESCRIPTION = 0x0642;
export const IDENTIFY_DEVICE = 0x1000;
export const RESET_DEVICE = 0x1001;
export const POWER_STATE = 0x1010;
export const PERFORM_SELFTEST = 0x1020;
export const PRESET_PLAYBACK = 0x1031;
export const IDENTIFY_MODE = 0x1040;
export const PRESET_MERGEMODE = 0x1043;
export const POWER_ON_SELF_TEST = 0x1044;
/** Parameters from here to 0xffdf are a maker's own. */
export const FIRST_OWN = 0x8000;

/** Reasons of a refusal (table A-17) */
export const NR_UNKNOWN_PID = 0x0000;
export const NR_FORMAT_ERROR = 0x0001;
export const NR_HARDWARE_FAULT = 0x0002;
export const NR_WRITE_PROTECT = 0x0004;
export const NR_UNSUPPORTED_COMMAND_CLASS = 0x0005;
export const NR_DATA_OUT_OF_RANGE = 0x0006;
export const NR_SUB_DEVICE_OUT_OF_RANGE = 0x0009;

/** How bad a status message is (table A-4) */
export const STATUS_ADVISORY = 0x02;
export const STATUS_WARNING = 0x03;
export const STATUS_ERROR = 0x04;

/** A responder without slots of its own (ANSI E1.20, 10.6.3) */
export const NO_START_ADDRESS = 0xffff;
/** Most bytes of parameter data in one packet */
export const MOST_DATA = 231;
/** Most characters of a label (ANSI E1.20, 10.5) */
export const MOST_LABEL = 32;
