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
