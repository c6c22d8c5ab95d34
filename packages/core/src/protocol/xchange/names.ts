/** Names of stations on mDNS: `<station>.<group>._mvrxchange._tcp.local`. */
import { DEFAULT_GROUP, SERVICE } from './constants';

/** A label of a name: dots part labels, and one holds 63 bytes. */
function label(text: string): string {
  const plain = text.replace(/\./g, '-').trim() || 'station';
  let cut = '';
  for (const character of plain) {
    if (new TextEncoder().encode(cut + character).length > 63) break;
    cut += character;
  }
  return cut;
}

export const groupService = (group: string): string => `${label(group || DEFAULT_GROUP)}.${SERVICE}`;
export const instanceName = (station: string, group: string): string => `${label(station)}.${groupService(group)}`;

/** The group of a service's name, empty if it has none; undefined if it is no service of MVR-xchange. */
export function groupOf(name: string): string | undefined {
  const lower = name.toLowerCase();
  const at = lower.lastIndexOf(SERVICE);
  if (at < 0 || at + SERVICE.length !== lower.replace(/\.$/, '').length) return undefined;
  const labels = name.slice(0, at).split('.').filter(Boolean);
  return labels.length > 1 ? labels.at(-1) : '';
}
