import type { FixtureKind } from '@taxiarch/core/show/records';

const WORDS: Readonly<Record<FixtureKind, string>> = {
  dimmer: 'Dimmer',
  relay: 'Switched relay',
  par: 'Colour lamp',
  spot: 'Moving profile',
  wash: 'Moving wash',
  batten: 'Batten',
  panel: 'Panel of cells',
  strobe: 'Strobe',
  hazer: 'Hazer',
  fan: 'Fan',
  bubbles: 'Bubble machine',
  wall: 'LED wall panel',
  media: 'Media server block',
  strip: 'Pixel strip',
  other: 'Other',
};

export const kindWord = (kind: FixtureKind): string => WORDS[kind];
