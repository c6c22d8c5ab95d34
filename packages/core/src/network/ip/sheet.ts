/** The sheet of addresses: one line an address. */
import type { ShowRecords } from '../../show/records';
import { maskText } from './ipv4';
import { addressesOf } from './planned';

export interface SheetRow {
  readonly name: string;
  readonly kind: string;
  readonly model: string;
  readonly place: string;
  readonly iface: string;
  readonly mac: string;
  readonly address: string;
  readonly mask: string;
  readonly way: string;
}

/** Machines in the order of their addresses; those without one last. */
export function addressSheet({ machine, model, place }: ShowRecords): SheetRow[] {
  const models = new Map(model.map((one) => [one.id, `${one.maker} ${one.name}`]));
  const places = new Map(place.map((one) => [one.id, one.name]));
  const rows = machine.flatMap((one) => {
    const base = {
      name: one.name,
      kind: one.kind,
      model: one.modelId === null ? '' : (models.get(one.modelId) ?? ''),
      place: one.placeId === null ? '' : (places.get(one.placeId) ?? ''),
    };
    const known = addressesOf(one);
    if (known.length === 0)
      return [
        {
          sort: Infinity,
          row: { ...base, iface: '', mac: one.interfaces[0]?.mac ?? '', address: '', mask: '', way: '' },
        },
      ];
    return known.map(({ text, number, prefix, way, iface }) => ({
      sort: number,
      row: {
        ...base,
        iface: one.interfaces[iface]!.name,
        mac: one.interfaces[iface]!.mac,
        address: text,
        mask: maskText(prefix),
        way,
      },
    }));
  });
  return rows.sort((a, b) => a.sort - b.sort || a.row.name.localeCompare(b.row.name)).map(({ row }) => row);
}
