/** The three ways of writing a level, all worked out once. */
export type Unit = 'dmx' | 'percent' | 'hex';

const LEVELS = Array.from({ length: 256 }, (_, level) => level);

export const WRITTEN: Readonly<Record<Unit, readonly string[]>> = {
  dmx: LEVELS.map(String),
  percent: LEVELS.map((level) => String(Math.round((level / 255) * 100))),
  hex: LEVELS.map((level) => level.toString(16).toUpperCase().padStart(2, '0')),
};

export const UNITS = [
  { value: 'dmx', label: '0–255' },
  { value: 'percent', label: '%' },
  { value: 'hex', label: 'Hex' },
] as const;
