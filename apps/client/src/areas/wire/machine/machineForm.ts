/** A machine as a form: what was typed, and the plan that it comes to. */
import { refuse, type Result } from '@taxiarch/core/base/result';
import { maskLength } from '@taxiarch/core/network/ip';
import { MODELS } from '@taxiarch/core/rig/library';
import { portsOfNumber } from '@taxiarch/core/network/flow';
import { portsFor } from '@taxiarch/core/network/machine';
import { wholeFrom } from '@/data/numbers';
import { added, countOf, type Plan, recordPlan } from '@taxiarch/core/show/edit';
import {
  type AddressWay,
  MOST_PORTS,
  type Machine,
  type MachineInterface,
  type MachineKind,
  PLAIN_MACHINE,
  type ShowRecords,
} from '@taxiarch/core/show/records';

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
  /** How many, of a machine whose model nobody knows */
  readonly ports: string;
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
  ports: machine ? String(machine.ports.length) : '2',
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

/** Whether the form asks for the number of ports: of what may have some, and whose model does not say it. */
export const hasPorts = ({ kind, modelId }: Pick<MachineForm, 'kind' | 'modelId'>): boolean =>
  modelId === '' && (kind === 'node' || kind === 'DMX desk' || kind === 'USB adapter' || kind === 'console');

/** What a form would write; a model of the library comes along into the show. */
export function planOf(form: MachineForm, base: Machine | undefined, id: string, records: ShowRecords): Result<Plan> {
  const { modelId, placeId, interfaces, ports, ...rest } = form;
  const model = modelsToChoose(records).find((one) => one.id === modelId);
  const plain: Machine = base ?? { ...PLAIN_MACHINE, id, rev: 0, name: '', kind: 'node' };
  const moved = modelId !== (base?.modelId ?? '');
  const many = hasPorts(form) ? wholeFrom(ports) : plain.ports.length;
  if (many === undefined || many < 0 || many > MOST_PORTS)
    return refuse('not-understood', `A machine has 0 to ${MOST_PORTS} ports.`);
  const machine: Machine = {
    ...plain,
    ...rest,
    name: rest.name.trim(),
    modelId: modelId || null,
    placeId: placeId || null,
    interfaces: interfaces
      .map(interfaceOf)
      .filter(({ name, mac, addresses }) => name + mac !== '' || addresses.length > 0),
    ports: model ? (moved ? portsFor(model, plain.ports) : plain.ports) : portsOfNumber(plain.ports, many),
  };
  const along = model && !records.model.some(({ id: of }) => of === model.id) ? [added('model', model)] : [];
  return recordPlan('machine', base, machine, {
    along: { changes: along, lines: [] },
    tellers: {
      name: base ? undefined : null,
      modelId: (of) => modelsToChoose(records).find((one) => one.id === of)?.name ?? '',
      placeId: (of) => records.place.find((one) => one.id === of)?.name ?? '',
      locked: (locked) => (locked ? 'locked' : 'open'),
      interfaces: interfacesText,
      ports: (ports) => (ports.length === 0 ? '' : countOf(ports.length, 'port')),
      sends: null,
      controller: null,
      ticks: null,
    },
  });
}

const interfacesText = (interfaces: Machine['interfaces']): string =>
  interfaces
    .flatMap(({ name, mac, addresses }) => [
      [name, mac].filter(Boolean).join(' '),
      ...addresses.map(({ way, address, prefix }) => (address ? `${address}/${prefix}` : way)),
    ])
    .filter(Boolean)
    .join(', ');
