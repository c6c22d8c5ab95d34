import type { Href } from 'expo-router';

/** Pages above others that are no area: a list, or the page that a form belongs to. */
const ABOVE: readonly (readonly [RegExp, (part: string) => Href])[] = [
  [/^\/flow\/senders\/[^/]+$/, () => '/flow/senders'],
  [/^\/flow\/routes\/[^/]+$/, () => '/flow/routes'],
  [/^\/flow\/links\/[^/]+$/, () => '/flow/links'],
  [/^\/rig\/universes\/[^/]+$/, () => '/rig/universes'],
  [/^\/rig\/types\/[^/]+$/, () => '/rig/types'],
  [/^\/rig\/arrivals\/[^/]+$/, () => '/rig/files'],
  [/^\/rig\/(?:pixels|controllers)\/[^/]+$/, () => '/rig/pixels'],
  [/^\/prove\/roll\/[^/]+$/, () => '/prove/roll'],
  [/^\/prove\/walks\/[^/]+$/, () => '/prove/walks'],
  [/^\/wire\/models\/[^/]+$/, () => '/wire/models'],
  [/^\/wire\/addresses\/[^/]+$/, () => '/wire/addresses'],
  [/^\/wire\/(?:change|ports)\/(?!new$)([^/]+)$/, (machine) => `/wire/${machine}`],
];
const AREAS = { rig: '/rig', wire: '/wire', flow: '/flow', listen: '/listen', prove: '/prove' } as const;

/** Where “back” leads from a page: to the page above it, and from there to the area's own; undefined from an area. */
export function upFrom(path: string): Href | undefined {
  const [, area, detail] = path.split('/');
  if (!detail || !area || !(area in AREAS)) return undefined;
  for (const [pattern, above] of ABOVE) {
    const found = pattern.exec(path);
    if (found) return above(found[1] ?? '');
  }
  return AREAS[area as keyof typeof AREAS];
}
