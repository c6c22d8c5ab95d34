/** The lamps that a list shows: grouped, and those that fit what is searched for. */
import { formatAddress } from '@taxiarch/core/base/address';
import { matchesWords } from '@taxiarch/core/network/jump';
import type { PatchedLamp } from '@taxiarch/core/rig/patch';
import type { Show } from '@/data/show';
import { count } from '@/ui';

export type Order = 'universe' | 'place';

/** A line of the list of lamps. */
export type Item =
  | { readonly kind: 'head'; readonly title: string; readonly note: string }
  | { readonly kind: 'lamp'; readonly under: string; readonly lamp: PatchedLamp };

function groupsOf({ records, patch }: Show, order: Order): { title: string; lamps: PatchedLamp[] }[] {
  const all = [...patch.all()].sort((a, b) => a.lamp.number - b.lamp.number);
  if (order === 'universe') {
    const groups = patch.universes().map((number) => {
      const name = records.universe.find((one) => one.number === number)?.name ?? 'not in the show';
      const lamps = [...new Set(patch.universe(number).map(({ patched }) => patched))];
      return { title: name === '' ? `Universe ${number}` : `Universe ${number}, ${name}`, lamps };
    });
    const nowhere = all.filter(({ spans }) => spans.length === 0);
    const [unknown, none] = [true, false].map((is) => nowhere.filter(({ type }) => type.unknown === is));
    return [{ title: 'Without an address', lamps: none! }, { title: 'Of unknown types', lamps: unknown! }, ...groups];
  }
  const places: readonly { id: string | null; name: string }[] = [...records.place].sort((a, b) => a.order - b.order);
  return [...places, { id: null, name: 'Without a place' }].map(({ id, name }) => ({
    title: name,
    lamps: all.filter(({ lamp }) => lamp.placeId === id),
  }));
}

export function itemsOf(show: Show, order: Order, query: string, place: string): Item[] {
  const fits = ({ lamp, type, mode }: PatchedLamp) =>
    (place === '' || lamp.placeId === place) &&
    (query === '' ||
      matchesWords(
        `${lamp.number} ${lamp.name} ${type.maker} ${type.name} ${mode.name} ${formatAddress(lamp)} ${lamp.groups.join(' ')} ${lamp.tag} ${lamp.written} ${lamp.unit} ${lamp.position} ${lamp.class} ${lamp.function} ${lamp.gel} ${lamp.circuit} ${lamp.notes}`,
        query,
      ));
  return groupsOf(show, order).flatMap(({ title, lamps }) => {
    const shown = lamps.filter(fits);
    if (shown.length === 0) return [];
    return [
      { kind: 'head', title, note: count(shown.length, 'lamp') } as const,
      ...shown.map((lamp) => ({ kind: 'lamp', under: title, lamp }) as const),
    ];
  });
}
