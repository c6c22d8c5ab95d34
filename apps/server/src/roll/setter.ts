/** Sets lamps and reads them back: each by itself, all at once, after how they were was kept. */
import { randomUUID } from 'node:crypto';
import { added } from '@taxiarch/core/edit';
import {
  Rdm,
  decodeDefaults,
  decodeLabel,
  decodeParameterDescription,
  decodeSlotInfo,
  encodeLabel,
  encodeStartAddress,
  parameterSheet,
  readValue,
  sheetOfOwn,
  valueText,
  writeValue,
  type ParameterSheet,
} from '@taxiarch/core/rdm';
import {
  answerText,
  typeFrom,
  type ToldSlot,
  type LampAnswer,
  type LampOutcome,
  type LampParameter,
  type LampRequest,
  type LampWish,
  type SeenLamp,
} from '@taxiarch/core/roll';
import type { FixtureType } from '@taxiarch/core/records';
import type { ShowDoor } from '../bridge/showDoor';
import { ProblemError } from '../problemError';
import { getOf } from './reader';
import type { RollCall } from './rollCall';

/** Written by the program for everybody, so that nobody's undo takes it away. */
const AUTHOR = 'Taxiarch';

const setOf = (uid: string, pid: number, data: Uint8Array): LampRequest => ({ uid, set: true, pid, data });

/** Two bytes of a parameter's number */
const numbered = (pid: number): Uint8Array => Uint8Array.of(pid >> 8, pid & 0xff);

const outcomeOf = (uid: string, answer: LampAnswer | undefined): LampOutcome | undefined => {
  if (!answer || answer.kind === 'ack') return undefined;
  if (answer.kind === 'refused') return { uid, state: 'refused', says: `It refuses: ${answerText(answer)}.` };
  return { uid, state: 'no answer', says: 'It does not answer; whether it was set is not known.' };
};

export class LampSetter {
  constructor(
    private readonly roll: RollCall,
    private readonly show: Pick<ShowDoor, 'propose'>,
  ) {}

  /** Keeps how lamps are set now, so that it can be put back. */
  async keep(lamps: readonly SeenLamp[]): Promise<void> {
    const settings = lamps
      .filter(({ says, mode }) => says === 'all' && mode > 0)
      .map(({ uid, startAddress, mode, label }) => ({
        uid,
        address: startAddress,
        personality: mode,
        label: label.slice(0, 32),
      }));
    if (settings.length === 0) return;
    const whose = settings.length === 1 ? settings[0]!.uid : `${settings.length} lamps`;
    const at = new Date().toISOString();
    const refused = await this.show.propose({
      author: AUTHOR,
      sentence: `Kept how ${whose} ${settings.length === 1 ? 'was' : 'were'} set before that was changed`,
      changes: [
        added('lampSettings', { id: randomUUID(), rev: 0, name: `${whose} before the change`, at, lamps: settings }),
      ],
    });
    if (refused !== undefined)
      throw new ProblemError(
        'not-possible',
        `How the lamps were set could not be kept (${refused}), so nothing was set.`,
      );
  }

  /** Every lamp stands for itself; one that is deaf or refuses holds up no other. */
  async set(wishes: readonly LampWish[]): Promise<LampOutcome[]> {
    const known = wishes.map(({ uid }) => this.roll.lamp(uid));
    await this.keep(known);
    return Promise.all(wishes.map((wish) => this.setOne(wish)));
  }

  /** Without keeping how it was: whoever calls has kept it. `urgent`: before all that waits at its port. */
  async setOne({ uid, address, mode, label }: LampWish, urgent = true): Promise<LampOutcome> {
    // The mode first: with another one, the address may not be possible yet.
    const sets = [
      ...(mode === undefined ? [] : [setOf(uid, Rdm.DMX_PERSONALITY, Uint8Array.of(mode))]),
      ...(address === undefined ? [] : [setOf(uid, Rdm.DMX_START_ADDRESS, encodeStartAddress(address))]),
      ...(label === undefined ? [] : [setOf(uid, Rdm.DEVICE_LABEL, encodeLabel(label))]),
    ];
    const reads = [getOf(uid, Rdm.DEVICE_INFO), ...(label === undefined ? [] : [getOf(uid, Rdm.DEVICE_LABEL)])];
    const answers = await this.roll.askNow(uid, [...sets, ...reads], urgent);
    const bad = answers.map((answer) => outcomeOf(uid, answer)).find((one) => one !== undefined);
    const now = this.roll.noteAnswers(uid, answers.slice(sets.length));
    if (bad) return bad;
    const off = [
      address !== undefined && now.startAddress !== address ? `address ${now.startAddress ?? 'none'}` : '',
      mode !== undefined && now.mode !== mode ? `mode ${now.mode}` : '',
      label !== undefined && now.label !== label ? `label “${now.label}”` : '',
    ].filter(Boolean);
    if (off.length > 0) return { uid, state: 'refused', says: `It took it and says ${off.join(', ')} now.` };
    return { uid, state: 'done', says: 'Set and read back.' };
  }

  async identify(uids: readonly string[], on: boolean): Promise<LampOutcome[]> {
    return Promise.all(
      uids.map(async (uid): Promise<LampOutcome> => {
        const [answer] = await this.roll.askNow(uid, [setOf(uid, Rdm.IDENTIFY_DEVICE, Uint8Array.of(Number(on)))]);
        return outcomeOf(uid, answer) ?? { uid, state: 'done', says: on ? 'It shows itself.' : 'It is as before.' };
      }),
    );
  }

  private async sheet(uid: string, pid: number): Promise<ParameterSheet | undefined> {
    const known = parameterSheet(pid);
    if (known || pid < Rdm.FIRST_OWN) return known;
    const [answer] = await this.roll.askNow(uid, [getOf(uid, Rdm.PARAMETER_DESCRIPTION, numbered(pid))]);
    if (answer?.kind !== 'ack') return undefined;
    const described = decodeParameterDescription(answer.data);
    return described.ok ? sheetOfOwn(described.value) : undefined;
  }

  /** Everything that a lamp offers with one plain value, and what it is now. */
  async parameters(uid: string): Promise<LampParameter[]> {
    const { parameters } = this.roll.lamp(uid);
    const sheets = await Promise.all(parameters.map((pid) => this.sheet(uid, pid)));
    const known = sheets.filter((one) => one !== undefined).filter(({ get }) => get);
    const answers = await this.roll.askNow(
      uid,
      known.map(({ pid }) => getOf(uid, pid)),
    );
    return known.map((sheet, i): LampParameter => {
      const { pid, name, unit, least, most, choices = [], set, size } = sheet;
      const plain = { pid, name, unit, least, most, choices, settable: set, isText: size === 0 };
      const answer = answers[i]!;
      if (answer.kind !== 'ack') return { ...plain, value: null, text: '', why: answerText(answer) };
      const value = readValue(sheet, answer.data);
      if (!value.ok) return { ...plain, value: null, text: '', why: value.why };
      return { ...plain, value: value.value, text: valueText(sheet, value.value) };
    });
  }

  /** A fixture type made from what a lamp tells of its slots. */
  async type(uid: string): Promise<FixtureType> {
    const seen = this.roll.lamp(uid);
    const [info, defaults] = await this.roll.askNow(uid, [
      getOf(uid, Rdm.SLOT_INFO),
      getOf(uid, Rdm.DEFAULT_SLOT_VALUE),
    ]);
    const slots = info?.kind === 'ack' ? decodeSlotInfo(info.data) : undefined;
    if (!slots?.ok) throw new ProblemError('no-answer', `It does not tell its slots: ${info ? answerText(info) : ''}.`);
    const names = await this.roll.askNow(
      uid,
      slots.value.map(({ slot }) => getOf(uid, Rdm.SLOT_DESCRIPTION, numbered(slot))),
    );
    const values = defaults?.kind === 'ack' ? decodeDefaults(defaults.data) : new Map<number, number>();
    const told = slots.value.map((one, i): ToldSlot => {
      const name = names[i];
      const said = name?.kind === 'ack' ? decodeLabel(name.data.subarray(2)) : '';
      return { ...one, name: said, default: values.get(one.slot) ?? 0 };
    });
    return typeFrom(seen, told, randomUUID());
  }

  /** The same of many; each is read back. */
  async setParameter(uids: readonly string[], pid: number, value: number | string): Promise<LampOutcome[]> {
    return Promise.all(
      uids.map(async (uid): Promise<LampOutcome> => {
        const sheet = await this.sheet(uid, pid);
        if (!sheet) return { uid, state: 'not known', says: 'It does not say what this setting is.' };
        if (!sheet.set) return { uid, state: 'refused', says: `${sheet.name} cannot be set.` };
        const data = writeValue(sheet, value);
        if (!data.ok) throw new ProblemError('not-understood', data.why);
        const [set, now] = await this.roll.askNow(uid, [setOf(uid, pid, data.value), getOf(uid, pid)]);
        const bad = outcomeOf(uid, set) ?? outcomeOf(uid, now);
        if (bad) return bad;
        const read = now?.kind === 'ack' ? readValue(sheet, now.data) : undefined;
        if (!read?.ok || read.value !== value)
          return {
            uid,
            state: 'refused',
            says: `It took it and says ${read?.ok ? valueText(sheet, read.value) : 'nothing'} now.`,
          };
        return { uid, state: 'done', says: `${sheet.name} is ${valueText(sheet, read.value)}.` };
      }),
    );
  }
}
