/** Reads what a lamp tells of itself; what all of one model and software share is asked of the first of them only. */
import {
  Rdm,
  decodeCount,
  decodeDeviceInfo,
  decodeLabel,
  decodePersonalityDescription,
  decodeSensorDefinition,
  decodeSensorValue,
  decodeStatus,
  decodeSupported,
  sensorText,
  statusText,
  type DeviceInfo,
  type SensorDefinition,
  type Uid,
} from '@taxiarch/core/protocol/rdm';
import type { Result } from '@taxiarch/core/base/result';
import type { LampAnswer, LampPort, LampRequest, SeenLamp } from '@taxiarch/core/truth/roll';

/** Asks one lamp; the answers come in the order of what was asked. */
export type AskLamp = (requests: readonly LampRequest[]) => Promise<readonly LampAnswer[]>;

const NOTHING = new Uint8Array(0);
export const getOf = (uid: Uid, pid: number, data: Uint8Array = NOTHING): LampRequest => ({
  uid,
  set: false,
  pid,
  data,
});

/** What all lamps of one model and software say alike. */
interface ModelFacts {
  readonly maker: string;
  readonly model: string;
  readonly firmware: string;
  readonly modes: SeenLamp['modes'];
  readonly sensors: readonly (SensorDefinition | undefined)[];
  readonly parameters: readonly number[];
}

const valueOf = <T>(answer: LampAnswer | undefined, decode: (data: Uint8Array) => Result<T>): T | undefined => {
  if (answer?.kind !== 'ack') return undefined;
  const decoded = decode(answer.data);
  return decoded.ok ? decoded.value : undefined;
};
const labelOf = (answer: LampAnswer | undefined): string => (answer?.kind === 'ack' ? decodeLabel(answer.data) : '');

const indexed = (uid: Uid, pid: number, count: number, first: number): LampRequest[] =>
  Array.from({ length: count }, (_, i) => getOf(uid, pid, Uint8Array.of(i + first)));

/** Of one that answers, and does not tell what it has. */
const UNTOLD: ModelFacts = { maker: '', model: '', firmware: '', modes: [], sensors: [], parameters: [] };

export class LampReader {
  /** By manufacturer, model and software; a promise while the first is being asked */
  private readonly models = new Map<string, Promise<ModelFacts | undefined>>();
  /** What the sensors of each lamp are */
  private readonly sensors = new Map<Uid, ModelFacts['sensors']>();

  private async askModel(uid: Uid, info: DeviceInfo, ask: AskLamp): Promise<ModelFacts | undefined> {
    const [supported, firmware] = await ask([
      getOf(uid, Rdm.SUPPORTED_PARAMETERS),
      getOf(uid, Rdm.SOFTWARE_VERSION_LABEL),
    ]);
    const parameters = valueOf(supported, decodeSupported);
    if (!parameters) return undefined;
    const has = (pid: number) => parameters.includes(pid);
    const ifListed = (pid: number) => (has(pid) ? [getOf(uid, pid)] : []);
    const labels = [...ifListed(Rdm.MANUFACTURER_LABEL), ...ifListed(Rdm.DEVICE_MODEL_DESCRIPTION)];
    const modes = has(Rdm.DMX_PERSONALITY_DESCRIPTION)
      ? indexed(uid, Rdm.DMX_PERSONALITY_DESCRIPTION, info.personalities, 1)
      : [];
    const sensors = has(Rdm.SENSOR_DEFINITION) ? indexed(uid, Rdm.SENSOR_DEFINITION, info.sensors, 0) : [];
    const answers = await ask([...labels, ...modes, ...sensors]);
    if (answers.some(({ kind }) => kind === 'silent' || kind === 'cancelled')) return undefined;
    const label = (pid: number) => labelOf(answers[labels.findIndex((one) => one.pid === pid)]);
    return {
      maker: label(Rdm.MANUFACTURER_LABEL),
      model: label(Rdm.DEVICE_MODEL_DESCRIPTION),
      firmware: labelOf(firmware),
      modes: modes.map((_, i) => {
        const described = valueOf(answers[labels.length + i], decodePersonalityDescription);
        return { name: described?.name ?? `Mode ${i + 1}`, slots: described?.footprint ?? 0 };
      }),
      sensors: sensors.map((_, i) => valueOf(answers[labels.length + modes.length + i], decodeSensorDefinition)),
      parameters,
    };
  }

  private facts(uid: Uid, info: DeviceInfo, ask: AskLamp): Promise<ModelFacts | undefined> {
    // Of one software there may be several builds: the footprint tells those apart that take other slots.
    const key = `${uid.slice(0, 4)} ${info.model} ${info.software} ${info.personalities} ${info.sensors} ${info.footprint}`;
    const known = this.models.get(key);
    if (known) return known;
    const asking = this.askModel(uid, info, ask);
    this.models.set(key, asking);
    // One that fell silent in the middle says nothing about the others.
    const forget = () => this.models.delete(key);
    asking.then((found) => found ?? forget(), forget);
    return asking;
  }

  /** Who a lamp is and how it is set; `says: 'nothing'` if it does not answer. Undefined if the asking was broken off. */
  async read(
    uid: Uid,
    { address, portAddress }: LampPort,
    ask: AskLamp,
    unixTime: () => number,
  ): Promise<SeenLamp | undefined> {
    const silent: SeenLamp = {
      ...{ uid, address, portAddress, says: 'nothing', startAddress: null, slots: 0, mode: 0, modes: [], label: '' },
      ...{ maker: '', model: '', firmware: '', sensors: [], hours: null, lightHours: null, strikes: null },
      ...{ switchedOn: null, errors: [], parameters: [], at: unixTime() },
    };
    const [first] = await ask([getOf(uid, Rdm.DEVICE_INFO)]);
    if (first?.kind === 'cancelled') return undefined;
    const info = valueOf(first, decodeDeviceInfo);
    if (!info) return silent;
    const facts = (await this.facts(uid, info, ask)) ?? (await this.facts(uid, info, ask)) ?? UNTOLD;
    this.sensors.set(uid, facts.sensors);
    const label = facts.parameters.includes(Rdm.DEVICE_LABEL) ? await ask([getOf(uid, Rdm.DEVICE_LABEL)]) : [];
    if (label[0]?.kind === 'cancelled') return undefined;
    return {
      ...silent,
      says: 'all',
      startAddress: info.startAddress === Rdm.NO_START_ADDRESS ? null : info.startAddress,
      slots: info.footprint,
      mode: info.personality,
      modes: facts.modes,
      label: labelOf(label[0]),
      maker: facts.maker,
      model: facts.model,
      firmware: facts.firmware,
      parameters: facts.parameters,
      at: unixTime(),
    };
  }

  /** Its hours, counts, sensors and what it says is wrong; undefined if the asking was broken off. */
  async readMore(seen: SeenLamp, ask: AskLamp): Promise<SeenLamp | undefined> {
    const { uid, parameters } = seen;
    const counts = [Rdm.DEVICE_HOURS, Rdm.LAMP_HOURS, Rdm.LAMP_STRIKES, Rdm.DEVICE_POWER_CYCLES];
    const wanted = counts.filter((pid) => parameters.includes(pid));
    const status = parameters.includes(Rdm.STATUS_MESSAGES)
      ? [getOf(uid, Rdm.STATUS_MESSAGES, Uint8Array.of(Rdm.STATUS_ADVISORY))]
      : [];
    const definitions = this.sensors.get(uid) ?? [];
    const sensors = indexed(uid, Rdm.SENSOR_VALUE, definitions.length, 0);
    const answers = await ask([...wanted.map((pid) => getOf(uid, pid)), ...status, ...sensors]);
    if (answers.some(({ kind }) => kind === 'cancelled')) return undefined;
    const counted = (pid: number) => valueOf(answers[wanted.indexOf(pid)], decodeCount) ?? null;
    return {
      ...seen,
      sensors: definitions.flatMap((definition, i) => {
        const value = valueOf(answers[wanted.length + status.length + i], decodeSensorValue);
        return definition && value ? [sensed(definition, value.now)] : [];
      }),
      hours: counted(Rdm.DEVICE_HOURS),
      lightHours: counted(Rdm.LAMP_HOURS),
      strikes: counted(Rdm.LAMP_STRIKES),
      switchedOn: counted(Rdm.DEVICE_POWER_CYCLES),
      errors: status.length > 0 ? (valueOf(answers[wanted.length], decodeStatus) ?? []).map(statusText) : [],
    };
  }
}

function sensed(definition: SensorDefinition, value: number): SeenLamp['sensors'][number] {
  const [least, most] = definition.normal;
  return {
    ...{ name: definition.name, value, text: sensorText(value, definition), least, most },
    normal: least <= value && value <= most,
  };
}

/** A lamp with what it answered to a question for its device information, and for its label. */
export function withAnswers(seen: SeenLamp, [info, label]: readonly LampAnswer[], at: number): SeenLamp {
  const now = valueOf(info, decodeDeviceInfo);
  if (!now) return seen;
  return {
    ...seen,
    startAddress: now.startAddress === Rdm.NO_START_ADDRESS ? null : now.startAddress,
    slots: now.footprint,
    mode: now.personality,
    ...(label?.kind === 'ack' && { label: labelOf(label) }),
    at,
  };
}
