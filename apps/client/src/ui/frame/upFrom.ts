import type { Href } from 'expo-router';

/** Lists, each with the pages that belong to it. */
const LISTS = [
  ['/flow/senders', /^\/flow\/senders\/[^/]+$/],
  ['/flow/routes', /^\/flow\/routes\/[^/]+$/],
  ['/flow/links', /^\/flow\/links\/[^/]+$/],
  ['/rig/universes', /^\/rig\/universes\/[^/]+$/],
  ['/rig/types', /^\/rig\/types\/[^/]+$/],
  ['/rig/files', /^\/rig\/arrivals\/[^/]+$/],
  ['/rig/pixels', /^\/rig\/(?:pixels|controllers)\/[^/]+$/],
  ['/prove/roll', /^\/prove\/roll\/[^/]+$/],
  ['/prove/walks', /^\/prove\/walks\/[^/]+$/],
  ['/wire/adapters', /^\/wire\/adapters\/[^/]+$/],
  ['/wire/models', /^\/wire\/models\/[^/]+$/],
  ['/wire/addresses', /^\/wire\/addresses\/[^/]+$/],
] as const;
const AREAS = ['/rig', '/wire', '/flow', '/listen', '/prove'] as const;
/** Forms of a machine belong to its page. */
const OF_MACHINE = /^\/wire\/(?:change|ports)\/(?!new$)([^/]+)$/;

/** True of pages that list things: they come back as they were left, however a person comes to them. */
export const isList = (path: string): boolean =>
  path === '/' || AREAS.some((area) => area === path) || LISTS.some(([list]) => list === path);

/** Where the header's arrow leads when there is no history: the page above; undefined from the first screen. */
export function upFrom(path: string): Extract<Href, string> | undefined {
  if (path === '/') return undefined;
  const list = LISTS.find(([, pattern]) => pattern.test(path));
  if (list) return list[0];
  const machine = OF_MACHINE.exec(path)?.[1];
  if (machine !== undefined) return `/wire/${machine}`;
  return AREAS.find((area) => path.startsWith(`${area}/`)) ?? '/';
}
