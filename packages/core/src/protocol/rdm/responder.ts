/**
 * A responder as the standards want it: answers what it is asked, takes what it is set to (ANSI E1.20-2010, 6, 10).
 * Lamps of the stand-in rig are made of it, and so are those of tests. Time is milliseconds, given by the caller.
 */
import { readU16, writeU16 } from '../../base/bytes';
import { parameterSheet, readValues, writeValues } from './catalogue';
import * as R from './constants';
import { decodeLabel, encodeDeviceInfo, encodeLabel } from './device';
import type { RdmPacket } from './packet';
import { encodeParameterDescription, encodeSupported, type ParameterDescription } from './parameters';
import { encodeSensorDefinition, encodeSensorValue, type SensorDefinition } from './sensors';
import { encodePersonalityDescription, encodeSlotInfo, encodeStartAddress, type SlotInfo } from './setup';
import { encodeCount, encodeStatus, type StatusMessage } from './status';
import { isBroadcast, type Uid } from './uid';

export interface ResponderSlot extends SlotInfo {
  readonly name: string;
  /** 0–255 */
  readonly default: number;
}

export interface ResponderPersonality {
  readonly name: string;
  readonly slots: readonly ResponderSlot[];
}

/** What a responder is and stays. */
export interface ResponderSheet {
  readonly uid: Uid;
  readonly model: number;
  readonly category: number;
  readonly software: number;
  readonly softwareName: string;
  readonly maker: string;
  readonly modelName: string;
  readonly personalities: readonly ResponderPersonality[];
  readonly sensors: readonly SensorDefinition[];
  /** Its maker's own parameters, of one byte each */
  readonly own: readonly ParameterDescription[];
}

/** What it is set to; it keeps that without power. */
export interface ResponderState {
  /** Null has none */
  address: number | null;
  /** From 1 */
  personality: number;
  label: string;
  /** Plain values by parameter */
  values: Record<number, number>;
  /** Values of those that have several, by parameter */
  several?: Record<number, readonly (number | string)[]>;
}

/** What is wrong with it on purpose. */
export interface ResponderFaults {
  /** Answers later, by a queued message, after so many milliseconds; 0 at once */
  readonly slow: number;
  /** Takes no setting */
  readonly refuses: boolean;
}
export const NO_RESPONDER_FAULTS: ResponderFaults = { slow: 0, refuses: false };

class Refusal extends Error {
  constructor(readonly reason: number) {
    super();
  }
}

/** Those that a responder with slots has anyway, and never lists (10.4.1) */
const REQUIRED: ReadonlySet<number> = new Set([
  R.SUPPORTED_PARAMETERS,
  R.PARAMETER_DESCRIPTION,
  R.DEVICE_INFO,
  R.SOFTWARE_VERSION_LABEL,
  R.DMX_START_ADDRESS,
  R.IDENTIFY_DEVICE,
]);
const PLAIN = [
  R.DEVICE_HOURS,
  R.LAMP_HOURS,
  R.LAMP_STRIKES,
  R.DEVICE_POWER_CYCLES,
  R.PAN_INVERT,
  R.TILT_INVERT,
  R.PAN_TILT_SWAP,
  R.DISPLAY_LEVEL,
];
const LISTED = [
  R.QUEUED_MESSAGE,
  R.STATUS_MESSAGES,
  R.DEVICE_MODEL_DESCRIPTION,
  R.MANUFACTURER_LABEL,
  R.DEVICE_LABEL,
  R.FACTORY_DEFAULTS,
  R.DMX_PERSONALITY,
  R.DMX_PERSONALITY_DESCRIPTION,
  R.SLOT_INFO,
  R.SLOT_DESCRIPTION,
  R.DEFAULT_SLOT_VALUE,
  R.DMX_FAIL_MODE,
  R.DMX_STARTUP_MODE,
  R.CURVE,
  R.CURVE_DESCRIPTION,
  R.RESET_DEVICE,
];

/** How its dimmer follows its channel */
const CURVES = ['Linear', 'Square', 'Gentle at both ends'];

const TENTH_MS = 100;
const NOTHING = new Uint8Array(0);

interface Waiting {
  readonly readyAt: number;
  readonly answer: RdmPacket;
}

/** `now` values of its sensors, in their own units; a light's heat is the world's matter. */
export type Sensing = (sensor: number) => number;

export class Responder {
  identifying = false;
  faults = NO_RESPONDER_FAULTS;
  status: StatusMessage[] = [];
  private waiting: Waiting[] = [];
  /** Answers too long for one packet, by parameter: what is left of them */
  private readonly rest = new Map<number, Uint8Array>();
  private readonly first: ResponderState;

  constructor(
    readonly sheet: ResponderSheet,
    public state: ResponderState,
    private readonly sense: Sensing = () => 0,
  ) {
    this.first = structuredClone(state);
  }

  get personality(): ResponderPersonality {
    return this.sheet.personalities[this.state.personality - 1]!;
  }

  /** The answer to a request; undefined where none is due: it is meant for others, or for everybody. */
  handle(request: RdmPacket, now: number): RdmPacket | undefined {
    const { destination } = request;
    const everybody = isBroadcast(destination);
    if (!everybody && destination !== this.sheet.uid) return undefined;
    if (everybody && !destination.startsWith('ffff') && !this.sheet.uid.startsWith(destination.slice(0, 4)))
      return undefined;
    if (request.commandClass !== R.GET_COMMAND && request.commandClass !== R.SET_COMMAND) return undefined;
    const answer = this.answer(request, now);
    return everybody ? undefined : answer;
  }

  private answer(request: RdmPacket, now: number): RdmPacket {
    if (request.pid === R.QUEUED_MESSAGE) return this.queued(request, now);
    const reply = (type: number, data: Uint8Array): RdmPacket => ({
      ...request,
      destination: request.source,
      source: this.sheet.uid,
      commandClass: request.commandClass + 1,
      portOrType: type,
      waiting: Math.min(255, this.waiting.length),
      data,
    });
    let answer: RdmPacket;
    try {
      if (request.subDevice !== 0) throw new Refusal(R.NR_SUB_DEVICE_OUT_OF_RANGE);
      const set = request.commandClass === R.SET_COMMAND;
      const data = set ? this.set(request.pid, request.data) : this.whole(request.pid, request.data);
      if (data.length > R.MOST_DATA) {
        this.rest.set(request.pid, data.subarray(R.MOST_DATA));
        return reply(R.RESPONSE_TYPE_ACK_OVERFLOW, data.subarray(0, R.MOST_DATA));
      }
      answer = reply(R.RESPONSE_TYPE_ACK, data);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      const reason = new Uint8Array(2);
      writeU16(reason, 0, error.reason);
      answer = reply(R.RESPONSE_TYPE_NACK_REASON, reason);
    }
    if (this.faults.slow === 0) return answer;
    this.waiting.push({ readyAt: now + this.faults.slow, answer });
    const tenths = new Uint8Array(2);
    writeU16(tenths, 0, Math.ceil(this.faults.slow / TENTH_MS));
    return reply(R.RESPONSE_TYPE_ACK_TIMER, tenths);
  }

  /** What is left of a long answer, or the answer from its begin. */
  private whole(pid: number, data: Uint8Array): Uint8Array {
    const left = this.rest.get(pid);
    this.rest.delete(pid);
    return left ?? this.get(pid, data);
  }

  private queued(request: RdmPacket, now: number): RdmPacket {
    const at = this.waiting.findIndex(({ readyAt }) => readyAt <= now);
    const plain = { ...request, destination: request.source, source: this.sheet.uid };
    if (at >= 0) {
      const [{ answer }] = this.waiting.splice(at, 1) as [Waiting];
      return {
        ...answer,
        ...{ destination: plain.destination, transaction: request.transaction },
        waiting: this.waiting.length,
      };
    }
    return {
      ...plain,
      commandClass: R.GET_COMMAND_RESPONSE,
      portOrType: R.RESPONSE_TYPE_ACK,
      waiting: this.waiting.length,
      pid: R.STATUS_MESSAGES,
      data: encodeStatus(this.status),
    };
  }

  private get supported(): number[] {
    return [
      ...LISTED,
      ...(this.sheet.sensors.length > 0 ? [R.SENSOR_DEFINITION, R.SENSOR_VALUE] : []),
      ...PLAIN,
      ...this.sheet.own.map(({ pid }) => pid),
    ];
  }

  private get(pid: number, data: Uint8Array): Uint8Array {
    const { sheet, state } = this;
    const word = () => {
      if (data.length !== 2) throw new Refusal(R.NR_FORMAT_ERROR);
      return readU16(data, 0);
    };
    const index = () => {
      if (data.length !== 1) throw new Refusal(R.NR_FORMAT_ERROR);
      return data[0]!;
    };
    const within = <T>(one: T | undefined): T => {
      if (one === undefined) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
      return one;
    };
    switch (pid) {
      case R.DEVICE_INFO:
        return encodeDeviceInfo({
          protocol: 0x0100,
          model: sheet.model,
          category: sheet.category,
          software: sheet.software,
          footprint: this.personality.slots.length,
          personality: state.personality,
          personalities: sheet.personalities.length,
          startAddress: state.address ?? R.NO_START_ADDRESS,
          subDevices: 0,
          sensors: sheet.sensors.length,
        });
      case R.SUPPORTED_PARAMETERS:
        return encodeSupported(this.supported);
      case R.PARAMETER_DESCRIPTION:
        return encodeParameterDescription(within(sheet.own.find((one) => one.pid === word())));
      case R.DEVICE_MODEL_DESCRIPTION:
        return encodeLabel(sheet.modelName);
      case R.MANUFACTURER_LABEL:
        return encodeLabel(sheet.maker);
      case R.SOFTWARE_VERSION_LABEL:
        return encodeLabel(sheet.softwareName);
      case R.DEVICE_LABEL:
        return encodeLabel(state.label);
      case R.DMX_START_ADDRESS:
        return encodeStartAddress(state.address ?? R.NO_START_ADDRESS);
      case R.DMX_PERSONALITY:
        return Uint8Array.of(state.personality, sheet.personalities.length);
      case R.DMX_PERSONALITY_DESCRIPTION: {
        const personality = index();
        const { name, slots } = within(sheet.personalities[personality - 1]);
        return encodePersonalityDescription({ personality, footprint: slots.length, name });
      }
      case R.SLOT_INFO:
        return encodeSlotInfo(this.personality.slots);
      case R.SLOT_DESCRIPTION: {
        const slot = word();
        const head = new Uint8Array(2);
        writeU16(head, 0, slot);
        return Uint8Array.from([...head, ...encodeLabel(within(this.personality.slots[slot]).name)]);
      }
      case R.DEFAULT_SLOT_VALUE:
        return Uint8Array.from(this.personality.slots.flatMap((one) => [one.slot >> 8, one.slot & 0xff, one.default]));
      case R.SENSOR_DEFINITION:
        return encodeSensorDefinition(within(sheet.sensors[index()]));
      case R.SENSOR_VALUE: {
        const sensor = index();
        within(sheet.sensors[sensor]);
        const now = this.sense(sensor);
        return encodeSensorValue({ sensor, now, lowest: now, highest: now, kept: now });
      }
      case R.STATUS_MESSAGES:
        return encodeStatus(this.status);
      case R.IDENTIFY_DEVICE:
        return Uint8Array.of(Number(this.identifying));
      case R.FACTORY_DEFAULTS:
        return Uint8Array.of(Number(JSON.stringify(state) === JSON.stringify(this.first)));
      case R.DMX_FAIL_MODE:
      case R.DMX_STARTUP_MODE: {
        const written = writeValues(parameterSheet(pid)!, state.several?.[pid] ?? [0, 0, 0xffff, 0]);
        if (!written.ok) throw new Refusal(R.NR_HARDWARE_FAULT);
        return written.value;
      }
      case R.CURVE:
        return Uint8Array.of(state.values[pid] ?? 1, CURVES.length);
      case R.CURVE_DESCRIPTION: {
        const curve = index();
        return Uint8Array.from([curve, ...encodeLabel(within(CURVES[curve - 1]))]);
      }
      default:
        return this.plainValue(pid);
    }
  }

  private plainValue(pid: number): Uint8Array {
    const value = this.state.values[pid] ?? 0;
    if (this.sheet.own.some((one) => one.pid === pid)) return Uint8Array.of(value);
    if (!PLAIN.includes(pid)) throw new Refusal(R.NR_UNKNOWN_PID);
    return parameterSheet(pid)!.parts[0]!.size === 4 ? encodeCount(value) : Uint8Array.of(value);
  }

  private set(pid: number, data: Uint8Array): Uint8Array {
    const { sheet, state } = this;
    if (this.faults.refuses && pid !== R.IDENTIFY_DEVICE) throw new Refusal(R.NR_WRITE_PROTECT);
    const flagged = (): boolean => {
      if (data.length !== 1) throw new Refusal(R.NR_FORMAT_ERROR);
      if (data[0]! > 1) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
      return data[0] === 1;
    };
    switch (pid) {
      case R.DMX_START_ADDRESS: {
        if (data.length !== 2) throw new Refusal(R.NR_FORMAT_ERROR);
        const address = readU16(data, 0);
        if (address < 1 || address > 512) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
        state.address = address;
        return NOTHING;
      }
      case R.DMX_PERSONALITY: {
        if (data.length !== 1) throw new Refusal(R.NR_FORMAT_ERROR);
        if (!sheet.personalities[data[0]! - 1]) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
        [state.personality] = data as unknown as [number];
        return NOTHING;
      }
      case R.DEVICE_LABEL:
        if (data.length > R.MOST_LABEL) throw new Refusal(R.NR_FORMAT_ERROR);
        state.label = decodeLabel(data);
        return NOTHING;
      case R.IDENTIFY_DEVICE:
        this.identifying = flagged();
        return NOTHING;
      case R.FACTORY_DEFAULTS:
        this.state = structuredClone(this.first);
        return NOTHING;
      case R.RESET_DEVICE:
        this.identifying = false;
        this.waiting = [];
        return NOTHING;
      case R.DMX_FAIL_MODE:
      case R.DMX_STARTUP_MODE:
        return this.setSeveral(pid, data);
      case R.CURVE:
        if (data.length !== 1) throw new Refusal(R.NR_FORMAT_ERROR);
        if (!CURVES[data[0]! - 1]) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
        state.values[pid] = data[0]!;
        return NOTHING;
      default:
        return this.setPlain(pid, data);
    }
  }

  private setSeveral(pid: number, data: Uint8Array): Uint8Array {
    const read = readValues(parameterSheet(pid)!, data);
    if (!read.ok) throw new Refusal(R.NR_FORMAT_ERROR);
    this.state.several = { ...this.state.several, [pid]: read.value };
    return NOTHING;
  }

  private setPlain(pid: number, data: Uint8Array): Uint8Array {
    const own = this.sheet.own.find((one) => one.pid === pid);
    const sheet = parameterSheet(pid);
    if (own) {
      if (data.length !== 1) throw new Refusal(R.NR_FORMAT_ERROR);
      if (data[0]! < own.least || data[0]! > own.most) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
      this.state.values[pid] = data[0]!;
      return NOTHING;
    }
    if (!sheet || !PLAIN.includes(pid))
      throw new Refusal(REQUIRED.has(pid) || LISTED.includes(pid) ? R.NR_UNSUPPORTED_COMMAND_CLASS : R.NR_UNKNOWN_PID);
    if (data.length !== sheet.parts[0]!.size) throw new Refusal(R.NR_FORMAT_ERROR);
    const value = data.reduce((sum, byte) => sum * 256 + byte, 0);
    if (!writeValues(sheet, [value]).ok) throw new Refusal(R.NR_DATA_OUT_OF_RANGE);
    this.state.values[pid] = value;
    return NOTHING;
  }
}
