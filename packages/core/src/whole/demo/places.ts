/** Where the demo show takes place. */

export const PLACES = [
  'Wheelhouse',
  'Foredeck',
  'Car Deck Port',
  'Car Deck Starboard',
  'Engine Room',
  'Passenger Saloon',
  'Quay',
  'Funnel',
] as const;
export type PlaceName = (typeof PLACES)[number];

export const placeId = (name: PlaceName): string => `place-${PLACES.indexOf(name) + 1}`;

/** Metres: first corner, extent, height. The bow is at y = 80. */
export const PLACE_BOXES: Readonly<
  Record<PlaceName, readonly [x: number, y: number, w: number, l: number, z: number]>
> = {
  Wheelhouse: [-4, 60, 8, 6, 14],
  Foredeck: [-6, 67, 12, 11, 9],
  'Car Deck Port': [-8, 12, 7, 44, 5],
  'Car Deck Starboard': [1, 12, 7, 44, 5],
  'Engine Room': [-6, 16, 12, 14, -2],
  'Passenger Saloon': [-7, 30, 14, 24, 9],
  Quay: [12, 5, 6, 60, 4],
  Funnel: [-2, 24, 4, 4, 18],
};
