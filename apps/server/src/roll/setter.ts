/** Sets lamps and reads them back: each by itself, all at once, after how they were was kept. */
import { randomUUID } from 'node:crypto';
import { added } from '@taxiarch/core/show/edit';
import {
  Rdm,
  decodeDefaults,
  decodeLabel,
  decodeParameterDescription,
  decodeSlotInfo,
  encodeLabel,
  encodeStartAddress,
  canBeSet,
  checkValue,
  countedIn,
  isSetting,
  parameterSheet,
  readValues,
  sheetOfOwn,
  unknownSheet,
  valueText,
  writeValues,
  type Choice,
  type ParameterSheet,
} from '@taxiarch/core/protocol/rdm';
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
} from '@taxiarch/core/truth/roll';
import type { FixtureType } from '@taxiarch/core/show/records';
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

  private async sheet(uid: string, pid: number): Promise<ParameterSheet> {
    const known = parameterSheet(pid);
    if (known || pid < Rdm.FIRST_OWN) return known ?? unknownSheet(pid);
    const [answer] = await this.roll.askNow(uid, [getOf(uid, Rdm.PARAMETER_DESCRIPTION, numbered(pid))]);
    const described = answer?.kind === 'ack' ? decodeParameterDescription(answer.data) : undefined;
    return described?.ok ? (sheetOfOwn(described.value) ?? unknownSheet(pid, described.value.name)) : unknownSheet(pid);
  }

  /** Names of what a numbered setting can be, as the lamp tells them. */
  private async choicesOf(uid: string, { named }: ParameterSheet, count: number): Promise<Choice[]> {
    if (!named) return [];
    const numbers = Array.from({ length: Math.min(count, MOST_CHOICES) }, (_, i) => i + 1);
    const answers = await this.roll.askNow(
      uid,
      numbers.map((one) => getOf(uid, named.pid, Uint8Array.of(one))),
    );
    return numbers.map((value, i) => {
      const answer = answers[i];
      const label = answer?.kind === 'ack' ? decodeLabel(answer.data.subarray(named.at)) : '';
      return { value, label: label || `number ${value}` };
    });
  }

  /** All settings that a lamp lists, with what each is now as far as it says so. */
  async parameters(uid: string): Promise<LampParameter[]> {
    const { parameters } = this.roll.lamp(uid);
    const sheets = await Promise.all(parameters.filter(isSetting).map((pid) => this.sheet(uid, pid)));
    const asked = sheets.filter(({ get }) => get);
    const answers = await this.roll.askNow(
      uid,
      asked.map(({ pid }) => getOf(uid, pid)),
    );
    const told = await Promise.all(sheets.map((sheet) => this.rowsOf(uid, sheet, answers[asked.indexOf(sheet)])));
    return told.flat();
  }

  /** A setting, a row for each of its values. */
  private async rowsOf(uid: string, sheet: ParameterSheet, answer: LampAnswer | undefined): Promise<LampParameter[]> {
    const read = answer?.kind === 'ack' ? readValues(sheet, answer.data) : undefined;
    const values = read?.ok ? read.value : [];
    const why = whyUntold(sheet, answer) ?? (read && !read.ok ? read.why : undefined);
    const choices = await this.choicesOf(uid, sheet, Number(values[1] ?? 0));
    // Of a numbered one the second tells how many there are.
    const parts = why !== undefined || sheet.named ? sheet.parts.slice(0, 1) : sheet.parts;
    return parts.map((part, i): LampParameter => {
      const value = values[i] ?? null;
      const meant = part.choices.length > 0 ? part.choices : choices;
      return {
        pid: sheet.pid,
        part: i,
        name: why !== undefined || part.name === '' ? sheet.name : `${sheet.name}, ${part.name}`,
        value,
        text: value === null ? '' : valueText({ ...part, choices: meant }, value),
        unit: countedIn(part),
        least: part.least,
        most: part.most,
        choices: meant,
        settable: canBeSet(sheet, i),
        isText: part.size === 0,
        ...(why !== undefined && { why }),
      };
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

  /** The same of many, each read back; `which` of its values, the others stay as they are. */
  async setParameter(uids: readonly string[], pid: number, value: number | string, which = 0): Promise<LampOutcome[]> {
    const known = parameterSheet(pid);
    const fits = known && checkValue(known, which, value);
    if (fits && !fits.ok) throw new ProblemError('not-understood', fits.why);
    if (RESETTLES.has(pid)) await this.keep(uids.map((uid) => this.roll.lamp(uid)));
    return Promise.all(uids.map((uid) => this.setPart(uid, pid, value, which)));
  }

  private async setPart(uid: string, pid: number, value: number | string, which: number): Promise<LampOutcome> {
    const sheet = await this.sheet(uid, pid);
    const refused = (says: string): LampOutcome => ({ uid, state: 'refused', says });
    if (!sheet.get && !sheet.set) return { uid, state: 'not known', says: 'It does not say what this setting is.' };
    // What is its maker's own may have another range in each.
    const fits = checkValue(sheet, which, value);
    if (!fits.ok) return refused(fits.why);
    let before: readonly (number | string)[] = [];
    if (sheet.parts.filter(({ told }) => !told).length > 1) {
      const [answer] = await this.roll.askNow(uid, [getOf(uid, pid)]);
      const bad = outcomeOf(uid, answer);
      if (bad) return bad;
      const read = answer?.kind === 'ack' ? readValues(sheet, answer.data) : undefined;
      if (!read?.ok) return refused(read?.why ?? 'It does not say how it is set now.');
      before = read.value;
    }
    const values = sheet.parts.map((_, i) => (i === which ? value : (before[i] ?? 0)));
    const data = writeValues(sheet, values, which);
    if (!data.ok) return refused(data.why);
    const part = sheet.parts[which]!;
    const called = part.name === '' ? sheet.name : `${sheet.name}, ${part.name}`;
    const back = sheet.get && !sheet.once;
    const [set, ...after] = await this.roll.askNow(uid, [
      setOf(uid, pid, data.value),
      ...(back ? [getOf(uid, pid)] : []),
      ...(RESETTLES.has(pid) ? [getOf(uid, Rdm.DEVICE_INFO), getOf(uid, Rdm.DEVICE_LABEL)] : []),
    ]);
    const bad = outcomeOf(uid, set) ?? (back ? outcomeOf(uid, after[0]) : undefined);
    if (RESETTLES.has(pid)) this.roll.noteAnswers(uid, after.slice(back ? 1 : 0));
    if (bad) return bad;
    if (!back)
      return { uid, state: 'done', says: `${called}: it took ${valueText(part, value)}; it cannot be read back.` };
    const read = after[0]?.kind === 'ack' ? readValues(sheet, after[0].data) : undefined;
    const now = read?.ok ? read.value[which]! : undefined;
    const says = now === undefined ? 'nothing' : valueText(part, now);
    return now === value
      ? { uid, state: 'done', says: `${called} is ${says}.` }
      : refused(`It took it and says ${says} now.`);
  }
}

/** What is set with these may be another address, mode or label: how they were is kept first, and they are read again. */
const RESETTLES: ReadonlySet<number> = new Set([Rdm.FACTORY_DEFAULTS, Rdm.DMX_BLOCK_ADDRESS, Rdm.DEVICE_LABEL]);
/** Most names of a numbered setting that are asked for */
const MOST_CHOICES = 32;

/** Why a lamp does not say how a setting is; undefined where it does, or where it is only to be set. */
function whyUntold({ get, set }: ParameterSheet, answer: LampAnswer | undefined): string | undefined {
  if (!get) return set ? undefined : 'It is listed; what its values mean is not known here.';
  return answer?.kind === 'ack' ? undefined : answer ? answerText(answer) : 'It was not asked.';
}
