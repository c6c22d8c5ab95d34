/** The addresses that machines are planned to have. */
import type { AddressWay, Machine } from '../../show/records';
import { ipNumber } from './ipv4';

/** What a planned address comes to. */
export interface EffectiveAddress {
  readonly text: string;
  readonly number: number;
  readonly prefix: number;
  readonly way: AddressWay;
  /** Which interface of its machine, and which address there, from 0 */
  readonly iface: number;
  readonly index: number;
}

/**
 * The address that a device makes of its hardware address and OEM code (Art-Net 4, "IP address
 * configuration"): first byte 2 or 10, then the sum of the fourth hardware byte and both bytes of the
 * OEM code, then the last two hardware bytes. The mask is 255.0.0.0.
 */
export function hardwareAddress(mac: string, oem: number, first: 2 | 10 = 2): string | undefined {
  const bytes = mac.split(':').map((pair) => parseInt(pair, 16));
  if (bytes.length !== 6 || bytes.some(Number.isNaN)) return undefined;
  const second = (bytes[3]! + (oem >> 8) + (oem & 0xff)) & 0xff;
  return [first, second, bytes[4], bytes[5]].join('.');
}

const OEM_UNKNOWN = 0x00ff;

const worked = new WeakMap<Machine, readonly EffectiveAddress[]>();

/** Addresses of a machine that are known, its main one first; worked out once for each record. */
export function addressesOf(machine: Machine): readonly EffectiveAddress[] {
  let known = worked.get(machine);
  if (!known) {
    known = workOut(machine);
    worked.set(machine, known);
  }
  return known;
}

function workOut(machine: Machine): EffectiveAddress[] {
  return machine.interfaces.flatMap(({ mac, addresses }, iface) =>
    addresses.flatMap(({ way, address, prefix }, index): EffectiveAddress[] => {
      const text = address === '' && way === 'hardware' ? (hardwareAddress(mac, OEM_UNKNOWN) ?? '') : address;
      const number = ipNumber(text);
      return number === undefined ? [] : [{ text, number, prefix, way, iface, index }];
    }),
  );
}

/** The address by which a machine is called; empty if none is known. */
export const mainAddress = (machine: Machine): string => addressesOf(machine)[0]?.text ?? '';

/** A machine with its main address set; an interface is made if it has none. */
export function withMainAddress(machine: Machine, address: string, prefix: number): Machine {
  const [first, ...rest] = machine.interfaces;
  const [, ...others] = first?.addresses ?? [];
  const main = {
    way: first?.addresses[0]?.way === 'hardware' ? 'fixed' : (first?.addresses[0]?.way ?? 'fixed'),
  } as const;
  return {
    ...machine,
    interfaces: [
      { name: first?.name ?? '', mac: first?.mac ?? '', addresses: [{ ...main, address, prefix }, ...others] },
      ...rest,
    ],
  };
}
