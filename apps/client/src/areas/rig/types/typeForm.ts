/** A fixture type as text fields, and back. Rows that cannot be read keep what was typed. */
import { ok, refuse, type Result } from '@taxiarch/core/base/result';
import { formatOffsets, formatRanges, readOffsets, readRanges } from '@taxiarch/core/rig/fixture';
import type { FixtureChannel, FixtureKind, FixtureMode, FixtureType } from '@taxiarch/core/show/records';
import { wholeFrom } from '@/data/numbers';

export interface ChannelForm {
  readonly attribute: string;
  readonly slots: string;
  readonly block: string;
  readonly cell: string;
  readonly default: string;
  readonly highlight: string;
  readonly ranges: string;
}

export interface ModeForm {
  /** What the mode is called in the show; empty for a new one. */
  readonly was: string;
  readonly name: string;
  readonly channels: readonly ChannelForm[];
}

/** How far it moves and how wide it shines, and what these are called on the form. */
export const TRAVEL = {
  pan: 'Pan, °',
  tilt: 'Tilt, °',
  beam: 'Beam angle, °',
  field: 'Field angle, °',
} as const satisfies Partial<Record<keyof FixtureType, string>>;
export type TravelField = keyof typeof TRAVEL;
export const TRAVEL_FIELDS = Object.keys(TRAVEL) as TravelField[];

/** Degrees as text, empty while nobody has said */
const travelForm = (type: Pick<FixtureType, TravelField>): Record<TravelField, string> =>
  mapTravel((field) => (type[field] === 0 ? '' : String(type[field])));
const mapTravel = <T>(of: (field: TravelField) => T): Record<TravelField, T> =>
  Object.fromEntries(TRAVEL_FIELDS.map((field) => [field, of(field)])) as Record<TravelField, T>;

export interface TypeForm extends Readonly<Record<TravelField, string>> {
  readonly maker: string;
  readonly name: string;
  readonly kind: FixtureKind;
  readonly answers: FixtureType['answers'];
  readonly modes: readonly ModeForm[];
}

export const channelForm = (channel: FixtureChannel): ChannelForm => ({
  attribute: channel.attribute,
  slots: formatOffsets(channel.offsets),
  block: channel.block === undefined ? '' : String(channel.block),
  cell: channel.cell === undefined ? '' : String(channel.cell),
  default: String(channel.default),
  highlight: String(channel.highlight),
  ranges: formatRanges(channel.ranges),
});

export const typeForm = ({ maker, name, kind, answers, modes, ...rest }: FixtureType): TypeForm => ({
  ...travelForm(rest),
  maker,
  name,
  kind,
  answers,
  modes: modes.map((mode) => ({ was: mode.name, name: mode.name, channels: mode.channels.map(channelForm) })),
});

export const EMPTY_CHANNEL: ChannelForm = {
  attribute: 'Dimmer',
  slots: '1',
  block: '',
  cell: '',
  default: '0',
  highlight: '255',
  ranges: '',
};

export const EMPTY_TYPE: TypeForm = {
  ...mapTravel(() => ''),
  maker: '',
  name: '',
  kind: 'other',
  answers: 'not known',
  modes: [{ was: '', name: 'Standard', channels: [EMPTY_CHANNEL] }],
};

export function readChannelForm(form: ChannelForm): Result<FixtureChannel> {
  const offsets = readOffsets(form.slots);
  if (!offsets.ok) return offsets;
  const ranges = readRanges(form.ranges, { offsets: offsets.value });
  if (!ranges.ok) return ranges;
  const block = form.block.trim() === '' ? 1 : wholeFrom(form.block);
  const cell = form.cell.trim() === '' ? 0 : wholeFrom(form.cell);
  const value = wholeFrom(form.default);
  const highlight = wholeFrom(form.highlight);
  if (block === undefined || block < 1 || cell === undefined || cell < 0)
    return refuse('not-understood', 'Cell and block are whole numbers from 1, or empty.');
  if (value === undefined || value < 0 || highlight === undefined || highlight < 0)
    return refuse('not-understood', 'Default and highlight are whole numbers from 0.');
  return ok({
    attribute: form.attribute.trim(),
    offsets: offsets.value,
    default: value,
    highlight,
    ...(cell > 0 && { cell }),
    ...(block > 1 && { block }),
    ...(ranges.value.length > 0 && { ranges: ranges.value }),
  });
}

export function readModeForm({ name, channels }: ModeForm): Result<FixtureMode> {
  const done: FixtureChannel[] = [];
  for (const [i, form] of channels.entries()) {
    const channel = readChannelForm(form);
    if (!channel.ok) return refuse('not-understood', `Channel ${i + 1}, ${form.attribute}: ${channel.why}`);
    done.push(channel.value);
  }
  return ok({ name: name.trim(), channels: done });
}

export function readTypeForm(form: TypeForm, base: Pick<FixtureType, 'id' | 'rev' | 'file'>): Result<FixtureType> {
  const modes: FixtureMode[] = [];
  for (const one of form.modes) {
    const mode = readModeForm(one);
    if (!mode.ok) return mode;
    modes.push(mode.value);
  }
  const { kind, answers } = form;
  const travel = mapTravel((field) => (form[field].trim() === '' ? 0 : Number(form[field].replace(',', '.'))));
  const odd = TRAVEL_FIELDS.find((field) => !(travel[field] >= 0));
  if (odd)
    return refuse('not-understood', `${TRAVEL[odd].replace(', °', '')}: “${form[odd]}” is no number of degrees.`);
  return ok({
    ...base,
    ...travel,
    unknown: false,
    maker: form.maker.trim(),
    name: form.name.trim(),
    kind,
    answers,
    modes,
  });
}

export const renamedModes = ({ modes }: TypeForm): Map<string, string> =>
  new Map(modes.filter(({ was }) => was !== '').map(({ was, name }) => [was, name.trim()]));
