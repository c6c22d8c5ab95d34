/** What GDTF says of attributes: features, activation groups and physical units (DIN SPEC 15800, annex A). */
import type { FixtureType } from '../../../show/records';

export interface AttributeSheet {
  /** Group and feature within it: `Color.RGB` */
  readonly feature: string;
  readonly unit: string;
  readonly activation?: string;
  /** Physical values at the lowest and the highest DMX value, in the unit */
  readonly range: readonly [number, number];
  /** Nobody has said the range of this type: it is that of most lamps. */
  readonly assumed: boolean;
}

type Range = readonly [number, number];
type Ranged = Range | ((type: FixtureType) => Range | Assumed);
/** What most lamps do, where a type doesn’t say it: a receiver that got 0–1° would not move. */
interface Assumed {
  readonly assumed: Range;
}
type Row = readonly [attributes: RegExp, feature: string, unit: string, range: Ranged, activation?: string];

/** Turned about the middle by so many degrees in all; by as many as usual where the type does not say. */
const about = (whole: number, usual: number): Range | Assumed =>
  whole === 0 ? { assumed: [-usual / 2, usual / 2] } : [-whole / 2, whole / 2];

const ROWS: readonly Row[] = [
  [/^Dimmer$/, 'Dimmer.Dimmer', 'LuminousIntensity', [0, 1]],
  [/^Pan$/, 'Position.PanTilt', 'Angle', ({ pan }) => about(pan, 540), 'PanTilt'],
  [/^Tilt$/, 'Position.PanTilt', 'Angle', ({ tilt }) => about(tilt, 270), 'PanTilt'],
  [/^PositionMSpeed$/, 'Control.Control', 'Speed', [0, 1]],
  [/^ColorAdd_/, 'Color.RGB', 'ColorComponent', [0, 1], 'ColorRGB'],
  [/^ColorSub_/, 'Color.RGB', 'ColorComponent', [0, 1], 'ColorRGB'],
  [/^ColorRGB_/, 'Color.RGB', 'ColorComponent', [0, 1], 'ColorRGB'],
  [/^(CTO|CTB|CTC)$/, 'Color.Color', 'Percent', [0, 100]],
  [/^Color\d+$/, 'Color.Color', 'None', [0, 1]],
  [/^Gobo\d+$/, 'Gobo.Gobo', 'None', [0, 1], 'Gobo1'],
  [/^Gobo\d+Pos$/, 'Gobo.Gobo', 'Angle', [0, 360], 'Gobo1Pos'],
  [/^Shutter\d+Strobe/, 'Beam.Beam', 'Frequency', [0, 25]],
  [/^Shutter\d+$/, 'Beam.Beam', 'None', [0, 1]],
  [/^StrobeDuration$/, 'Beam.Beam', 'Time', [0, 1]],
  [/^Prism\d+/, 'Beam.Beam', 'None', [0, 1], 'Prism'],
  [/^(Frost\d+|Iris)$/, 'Beam.Beam', 'Percent', [0, 100]],
  [
    /^Zoom$/,
    'Focus.Focus',
    'Angle',
    ({ beam, field }) => (beam === 0 || field === 0 ? { assumed: [10, 50] } : [beam, field]),
  ],
  [/^Focus\d+$/, 'Focus.Focus', 'Percent', [0, 100]],
  [/^Blade\d[AB]$/, 'Shapers.Shapers', 'Percent', [0, 100], 'Shaper'],
  [/^(Blade\d|Blade|Shaper)Rot$/, 'Shapers.Shapers', 'Angle', [-45, 45], 'Shaper'],
  [/^(Fog|Haze)\d+$|^Fans$/, 'Control.Control', 'Percent', [0, 100]],
  [/^(Media|Play|Video)|^Transparency$/, 'Video.Video', 'None', [0, 1]],
  [/^Rot_[XYZ]$/, 'Position.Rotation', 'Angle', [-180, 180], 'Rot_XYZ'],
];

export function attributeSheet(attribute: string, type: FixtureType): AttributeSheet {
  const row = ROWS.find(([attributes]) => attributes.test(attribute));
  if (!row) return { feature: 'Control.Control', unit: 'None', range: [0, 1], assumed: false };
  const [, feature, unit, ranged, activation] = row;
  const range = typeof ranged === 'function' ? ranged(type) : ranged;
  const assumed = 'assumed' in range;
  return {
    feature,
    unit,
    range: assumed ? range.assumed : range,
    assumed,
    ...(activation !== undefined && { activation }),
  };
}

interface ColourSheet {
  readonly name: string;
  readonly colour: string;
  /** nm; of light of one colour */
  readonly wave?: number;
}

/** The light that each attribute of colour adds, as such lights usually are. */
export const EMITTERS: Readonly<Record<string, ColourSheet>> = {
  ColorAdd_R: { name: 'Red', colour: '#ff0000', wave: 625 },
  ColorAdd_G: { name: 'Green', colour: '#00ff00', wave: 525 },
  ColorAdd_B: { name: 'Blue', colour: '#0000ff', wave: 465 },
  ColorAdd_C: { name: 'Cyan', colour: '#00ffff', wave: 500 },
  ColorAdd_M: { name: 'Magenta', colour: '#ff00ff' },
  ColorAdd_Y: { name: 'Yellow', colour: '#ffff00', wave: 575 },
  ColorAdd_RY: { name: 'Amber', colour: '#ffbf00', wave: 590 },
  ColorAdd_GY: { name: 'Lime', colour: '#bfff00', wave: 565 },
  ColorAdd_W: { name: 'White', colour: '#ffffff' },
  ColorAdd_WW: { name: 'Warm white', colour: '#ffb46b' },
  ColorAdd_CW: { name: 'Cold white', colour: '#d6e4ff' },
  ColorAdd_UV: { name: 'Ultraviolet', colour: '#7f00ff', wave: 400 },
};

/** What each attribute of colour leaves of white light at full. */
export const FILTERS: Readonly<Record<string, ColourSheet>> = {
  ColorSub_C: { name: 'Cyan', colour: '#00ffff' },
  ColorSub_M: { name: 'Magenta', colour: '#ff00ff' },
  ColorSub_Y: { name: 'Yellow', colour: '#ffff00' },
  CTO: { name: 'Warm', colour: '#ffb46b' },
};

/** What a function is called whose physical range nobody has said; by this it is read back as not known. */
export const ASSUMED = ', range assumed';

/** Attributes whose values choose a slot of a wheel */
export const isWheel = (attribute: string): boolean => /^(Color|Gobo)\d+$/.test(attribute);
