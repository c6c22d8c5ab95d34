/** A machine as a form: what was typed, and the plan that it comes to. */
import { refuse, type Read } from '@taxiarch/core/address';
import { maskLength } from '@taxiarch/core/ip';
import { MODELS } from '@taxiarch/core/library';
import { portsFor } from '@taxiarch/core/machine';
import { added, changed, type Plan, type PlanLine } from '@taxiarch/core/patch';
import {
  PLAIN_MACHINE,
  checkRecord,
  type AddressWay,
  type Machine,
  type MachineInterface,
  type MachineKind,
  type ShowRecords,
} from '@taxiarch/core/show';

export interface AddressForm {
  readonly way: AddressWay;
  readonly address: string;
  /** Bits, or a mask with dots */
  readonly mask: string;
}

export interface InterfaceForm {
  readonly name: string;
  readonly mac: string;
  readonly addresses: readonly AddressForm[];
}

export interface MachineForm {
  readonly name: string;
  readonly kind: MachineKind;
  readonly modelId: string;
  readonly placeId: string;
  readonly notes: string;
  readonly firmware: string;
  readonly mode: string;
  readonly serial: string;
  readonly locked: boolean;
  readonly interfaces: readonly InterfaceForm[];
}

export const EMPTY_ADDRESS: AddressForm = { way: 'fixed', address: '', mask: '8' };
export const EMPTY_INTERFACE: InterfaceForm = { name: '', mac: '', addresses: [EMPTY_ADDRESS] };

export const formOf = (machine: Machine | undefined): MachineForm => ({
  name: machine?.name ?? '',
  kind: machine?.kind ?? 'node',
  modelId: machine?.modelId ?? '',
  placeId: machine?.placeId ?? '',
  notes: machine?.notes ?? '',
  firmware: machine?.firmware ?? '',
  mode: machine?.mode ?? '',
  serial: machine?.serial ?? '',
  locked: machine?.locked ?? false,
  interfaces: machine?.interfaces.map(({ name, mac, addresses }) => ({
    name,
    mac,
    addresses: addresses.map(({ way, address, prefix }) => ({ way, address, mask: String(prefix) })),
  })) ?? [EMPTY_INTERFACE],
});

const prefixOf = (mask: string): number =>
  /^\d{1,2}$/.test(mask.trim()) ? Number(mask.trim()) : (maskLength(mask.trim()) ?? NaN);

const interfaceOf = ({ name, mac, addresses }: InterfaceForm): MachineInterface => ({
  name: name.trim(),
  mac: mac.trim().toLowerCase().replaceAll('-', ':'),
  addresses: addresses
    .filter(({ way, address }) => way !== 'fixed' || address.trim() !== '')
    .map(({ way, address, mask }) => ({ way, address: address.trim(), prefix: prefixOf(mask) })),
});

/** Models to choose from: those of the show, then those of the library that it lacks. */
export const modelsToChoose = ({ model }: ShowRecords) => [
  ...model,
  ...MODELS.filter(({ id }) => !model.some((one) => one.id === id)),
];

const WORDS: Readonly<Partial<Record<keyof Machine, string>>> = {
  name: 'name',
  kind: 'kind',
  modelId: 'model',
  placeId: 'place',
  notes: 'notes',
  firmware: 'firmware',
  mode: 'mode',
  serial: 'serial number',
  locked: 'lock',
};

/** What a form would write; a model of the library comes along into the show. */
export function planOf(form: MachineForm, base: Machine | undefined, id: string, records: ShowRecords): Read<Plan> {
  const { modelId, placeId, interfaces, ...rest } = form;
  const model = modelsToChoose(records).find((one) => one.id === modelId);
  const plain: Machine = base ?? { ...PLAIN_MACHINE, id, rev: 0, name: '', kind: 'node' };
  const moved = modelId !== (base?.modelId ?? '');
  const machine: Machine = {
    ...plain,
    ...rest,
    name: rest.name.trim(),
    modelId: modelId || null,
    placeId: placeId || null,
    interfaces: interfaces
      .map(interfaceOf)
      .filter(({ name, mac, addresses }) => name + mac !== '' || addresses.length > 0),
    ports: model && moved ? portsFor(model, plain.ports) : plain.ports,
  };
  const checked = checkRecord('machine', machine);
  if (!checked.ok) return refuse(checked.faults[0]!.why);
  const nameOf = (key: keyof Machine, one: Machine | undefined): string => {
    if (!one) return '';
    if (key === 'modelId') return modelsToChoose(records).find(({ id: of }) => of === one.modelId)?.name ?? '';
    if (key === 'placeId') return records.place.find(({ id: of }) => of === one.placeId)?.name ?? '';
    if (key === 'locked') return one.locked ? 'locked' : 'open';
    return String(one[key]);
  };
  const lines: PlanLine[] = Object.entries(WORDS).flatMap(([key, word]) => {
    const [before, after] = [nameOf(key as keyof Machine, base), nameOf(key as keyof Machine, machine)];
    return before === after ? [] : [{ subject: `${machine.name}, ${word}`, before, after: after || 'none' }];
  });
  const told = (one: Machine | undefined) =>
    one?.interfaces
      .flatMap(({ name, mac, addresses }) => [
        [name, mac].filter(Boolean).join(' '),
        ...addresses.map(({ way, address, prefix }) => (address ? `${address}/${prefix}` : way)),
      ])
      .filter(Boolean)
      .join(', ') ?? '';
  if (told(base) !== told(machine))
    lines.push({ subject: `${machine.name}, interfaces`, before: told(base), after: told(machine) || 'none' });
  if (lines.length === 0) return refuse('Nothing would change.');
  const brings = model && !records.model.some(({ id: of }) => of === model.id) ? [added('model', model)] : [];
  return {
    ok: true,
    value: {
      sentence: base ? `Changed ${machine.name}` : `Added ${machine.name}`,
      changes: [...brings, base ? changed('machine', base, machine) : added('machine', machine)],
      lines,
    },
  };
}
