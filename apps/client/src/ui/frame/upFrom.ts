/** Pages above others that are no area: a list, or the page that a form belongs to. */
const ABOVE: readonly (readonly [RegExp, string])[] = [
  [/^\/(flow\/(?:senders|routes|links)|rig\/(?:universes|types|pixels)|wire\/(?:models|addresses))\/[^/]+$/, '/$1'],
  [/^\/wire\/(?:change|ports)\/(?!new$)([^/]+)$/, '/wire/$1'],
  [/^\/rig\/controllers\/[^/]+$/, '/rig/pixels'],
];

/** Where “back” leads from a page: to the page above it, and from there to the area's own; undefined from an area. */
export function upFrom(path: string): string | undefined {
  const [, area, detail] = path.split('/');
  if (!detail) return undefined;
  for (const [pattern, above] of ABOVE) if (pattern.test(path)) return path.replace(pattern, above);
  return `/${area}`;
}
